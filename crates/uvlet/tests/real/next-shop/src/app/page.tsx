import { Basket, Slides } from "@/components";
export default function Home() { return <main><h1>Shop</h1><Basket /><Slides /></main>; }
