import { h } from "./h.js";
export const button = (label, onClick, { kind = "plain", ...rest } = {}) =>
  h("button", { type: "button", class: `k-button k-button-${kind}`, onClick, ...rest }, label);
