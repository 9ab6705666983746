import { Prices } from "@/components";
export default function Page() { return <main><h1>Charts</h1><Prices /></main>; }
