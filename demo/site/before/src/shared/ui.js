// The parts of the house style that our pages use.
export { badge, banner, button, card, dialog, h, icon, plotCard, spinner, table, tabs } from "@kelpwick/ui";
