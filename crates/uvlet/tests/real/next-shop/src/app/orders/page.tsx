import { OrderForm } from "@/components";
export default function Page() { return <main><h1>Orders</h1><OrderForm /></main>; }
