import { h } from "./h.js";
import { icon } from "./icon.js";
export function banner(text, { kind = "notice", onClose } = {}) {
  const root = h("div", { class: `k-banner k-banner-${kind}`, role: kind === "warning" ? "alert" : "status" }, icon(kind), h("p", {}, text));
  if (onClose) root.append(h("button", { class: "k-close", "aria-label": "Close", onClick: () => (root.remove(), onClose()) }, "×"));
  return root;
}
