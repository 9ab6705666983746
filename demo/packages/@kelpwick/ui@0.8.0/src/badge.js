import { h } from "./h.js";
export const badge = (text, tone = "calm") => h("span", { class: `k-badge k-badge-${tone}` }, text);
