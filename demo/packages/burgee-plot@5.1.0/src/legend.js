import { element, group, translate } from "./svg.js";
export function legend(scale, box) {
  const root = group({ class: "legend", transform: translate(box.left + 8, box.top) });
  scale.domain.forEach((name, at) => {
    const text = element("text", { x: 18, y: 10, "font-size": 11 });
    text.textContent = name;
    root.append(group({ transform: translate(0, at * 16) }, element("rect", { width: 12, height: 12, fill: scale(name) }), text));
  });
  return root;
}
