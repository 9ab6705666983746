import { create } from 'zustand'
import { produce } from 'immer'
import { sumBy, groupBy } from 'lodash-es'

type Basket = { items: string[]; add: (item: string) => void }
export const useBasket = create<Basket>((set) => ({
  items: [],
  add: (item) => set(produce((basket: Basket) => { basket.items.push(item) })),
}))
export const total = (rows: { price: number }[]) => sumBy(rows, 'price')
export const byKind = (rows: { kind: string }[]) => groupBy(rows, 'kind')
export function unusedReport(rows: { price: number }[]) {
  return rows.map((row) => row.price.toFixed(2)).join('\n')
}
