"use client";
import useEmblaCarousel from "embla-carousel-react";
import * as Tabs from "@radix-ui/react-tabs";
import * as Menu from "@radix-ui/react-dropdown-menu";
import useSWR from "swr";
import { marked } from "marked";
export function Slides() {
  const [ref] = useEmblaCarousel();
  const { data } = useSWR("notes", async () => marked.parse("# hi") as string);
  return <><div ref={ref}><div>{data}</div></div><Tabs.Root defaultValue="a"><Tabs.List><Tabs.Trigger value="a">A</Tabs.Trigger></Tabs.List></Tabs.Root><Menu.Root><Menu.Trigger>More</Menu.Trigger></Menu.Root></>;
}
