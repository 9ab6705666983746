// The parts of the house style that our pages use. Plots are imported where they are drawn: the
// package's index would bring the chart drawer to every page.
export { badge } from "@kelpwick/ui/badge";
export { banner } from "@kelpwick/ui/banner";
export { button } from "@kelpwick/ui/button";
export { card } from "@kelpwick/ui/card";
export { dialog } from "@kelpwick/ui/dialog";
export { h } from "@kelpwick/ui/h";
export { icon } from "@kelpwick/ui/icon";
export { spinner } from "@kelpwick/ui/spinner";
export { table } from "@kelpwick/ui/table";
export { tabs } from "@kelpwick/ui/tabs";
