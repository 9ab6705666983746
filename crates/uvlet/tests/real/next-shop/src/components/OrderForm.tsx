"use client";
import { useForm } from "react-hook-form";
import { zodResolver } from "@hookform/resolvers/zod";
import { z } from "zod";
import axios from "axios";
import { v4 } from "uuid";
import { toast } from "sonner";

const schema = z.object({ name: z.string().min(1) });
export function OrderForm({ onDone }: { onDone?: () => void }) {
  const { register, handleSubmit } = useForm({ resolver: zodResolver(schema) });
  return <form onSubmit={handleSubmit((v) => axios.post("/api/order", { ...v, id: v4() }).then(() => { toast("sent"); onDone?.(); }, () => toast("failed")))}><input {...register("name")} /><button>Send</button></form>;
}
