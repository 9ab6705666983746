import { Dialog, DialogTitle, DialogContent, DialogActions, Button, TextField, Autocomplete } from '@mui/material'
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs'
import { DatePicker } from '@mui/x-date-pickers/DatePicker'
import { useForm } from 'react-hook-form'
import { zodResolver } from '@hookform/resolvers/zod'
import { z } from 'zod'
import axios from 'axios'
import dayjs from 'dayjs'

const schema = z.object({ name: z.string().min(2), mail: z.email() })
export function OrderDialog({ onClose }: { onClose: () => void }) {
  const { register, handleSubmit } = useForm({ resolver: zodResolver(schema) })
  return (
    <Dialog open onClose={onClose}>
      <form onSubmit={handleSubmit((values) => axios.post('/orders', values).then(onClose, onClose))}>
        <DialogTitle>Order</DialogTitle>
        <DialogContent>
          <TextField label="Name" {...register('name')} />
          <TextField label="Mail" {...register('mail')} />
          <Autocomplete options={['tea', 'coffee']} renderInput={(p) => <TextField {...p} label="Kind" />} />
          <LocalizationProvider dateAdapter={AdapterDayjs}><DatePicker defaultValue={dayjs()} /></LocalizationProvider>
        </DialogContent>
        <DialogActions><Button type="submit">Send</Button></DialogActions>
      </form>
    </Dialog>
  )
}
