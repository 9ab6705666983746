"use client";
import { useState } from "react";
import { create } from "zustand";
import { atom, useAtom } from "jotai";
import { motion } from "framer-motion";
import { ShoppingCart, Trash } from "lucide-react";
import { twMerge } from "tailwind-merge";
import clsx from "clsx";
import { nanoid } from "nanoid";
import _ from "lodash";
import * as Dialog from "@radix-ui/react-dialog";
import { OrderForm } from "./OrderForm";

const count = atom(0);
const useItems = create<{ items: string[]; add: (i: string) => void }>((set) => ({
  items: [], add: (i) => set((s) => ({ items: _.uniq([...s.items, i]) })),
}));
export function Basket() {
  const [open, setOpen] = useState(false);
  const [n, setN] = useAtom(count);
  const { items, add } = useItems();
  return (
    <motion.div className={twMerge(clsx("p-2", n && "p-4"))}>
      <button onClick={() => { setN(n + 1); add(nanoid()); }}><ShoppingCart /> {items.length}</button>
      <button onClick={() => setOpen(true)}><Trash /> Order</button>
      {open && <Dialog.Root open onOpenChange={() => setOpen(false)}><Dialog.Content><Dialog.Title>Order</Dialog.Title><OrderForm onDone={() => setOpen(false)} /></Dialog.Content></Dialog.Root>}
    </motion.div>
  );
}
