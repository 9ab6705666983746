import { useQuery } from '@tanstack/react-query'
import { Table, TableBody, TableCell, TableRow, TableHead } from '@mui/material'
import { DndContext } from '@dnd-kit/core'
import { SortableContext } from '@dnd-kit/sortable'
import { useSnackbar } from 'notistack'
import { format, addDays } from 'date-fns'
import * as locales from 'date-fns/locale'
import { total } from '../basket'

export function Orders() {
  const { enqueueSnackbar } = useSnackbar()
  const { data = [] } = useQuery({ queryKey: ['orders'], queryFn: async () => [1, 2, 3].map((n) => ({ n, price: n * 2 })) })
  const locale = (locales as Record<string, any>)[navigator.language.slice(0, 2)] ?? locales.enGB
  return (
    <DndContext>
      <SortableContext items={data.map((row) => row.n)}>
        <Table>
          <TableHead><TableRow><TableCell>Day</TableCell><TableCell>Price</TableCell></TableRow></TableHead>
          <TableBody>
            {data.map((row) => (
              <TableRow key={row.n} onClick={() => enqueueSnackbar('row ' + row.n)}>
                <TableCell>{format(addDays(0, row.n), 'PPPP', { locale })}</TableCell><TableCell>{row.price}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
        <p>{total(data)}</p>
      </SortableContext>
    </DndContext>
  )
}
