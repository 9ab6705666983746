import { h } from "./h.js";
export function tabs(items, { selected = 0, onSelect } = {}) {
  const panel = h("div", { role: "tabpanel" });
  const heads = items.map(({ label }, at) => h("button", { role: "tab", type: "button", onClick: () => select(at) }, label));
  function select(at) {
    heads.forEach((head, n) => {
      head.setAttribute("aria-selected", String(n === at));
      head.tabIndex = n === at ? 0 : -1;
    });
    panel.replaceChildren(items[at].body());
    onSelect?.(at);
  }
  const list = h("div", { role: "tablist", class: "k-tabs" }, heads);
  list.addEventListener("keydown", (event) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!step) return;
    const next = (heads.indexOf(document.activeElement) + step + heads.length) % heads.length;
    heads[next].focus();
    select(next);
  });
  select(selected);
  return h("div", {}, list, panel);
}
