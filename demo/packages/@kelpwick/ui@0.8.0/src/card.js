import { h } from "./h.js";
export const card = (title, ...children) => h("section", { class: "k-card" }, h("h3", {}, title), ...children);
