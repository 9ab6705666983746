import { h } from "./h.js";
export function spinner(label = "Loading") {
  const root = h("span", { class: "k-spinner", role: "status" }, label);
  let dots = 0;
  const timer = setInterval(() => {
    if (!root.isConnected) return clearInterval(timer);
    dots = (dots + 1) % 4;
    root.textContent = label + ".".repeat(dots);
  }, 400);
  return root;
}
