import { useState } from 'react'
import { Card, CardContent, Typography, Button, Stack } from '@mui/material'
import { Add, Edit } from '@mui/icons-material'
import { motion } from 'framer-motion'
import { nanoid } from 'nanoid'
import { v4 } from 'uuid'
import clsx from 'clsx'
import { useBasket } from './basket'
import { OrderDialog } from './ui/OrderDialog'
import './App.css'

export default function App() {
  const [open, setOpen] = useState(false)
  const [id] = useState(() => nanoid() + v4())
  const { items, add } = useBasket()
  return (
    <motion.div initial={{ opacity: 0 }} animate={{ opacity: 1 }}>
      <Card className={clsx('card', items.length && 'full')}>
        <CardContent>
          <Typography variant="h4">Basket of {id.slice(0, 4)}</Typography>
          <Stack direction="row" spacing={2}>
            <Button startIcon={<Add />} onClick={() => add('tea')}>Tea</Button>
            <Button startIcon={<Edit />} onClick={() => setOpen(true)}>Order</Button>
          </Stack>
          <Typography>{items.length} items</Typography>
        </CardContent>
      </Card>
      {open && <OrderDialog onClose={() => setOpen(false)} />}
    </motion.div>
  )
}
