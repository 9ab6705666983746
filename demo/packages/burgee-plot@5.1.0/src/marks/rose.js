import { sequential } from "../palette.js";
import { element, group, translate, round } from "../svg.js";
/** A wind rose: one petal per direction, one ring per class of speed. */
export function rose({ data, classes }, scales, box) {
  const radius = Math.min(box.right - box.left, box.bottom - box.top) / 2;
  const most = Math.max(...data.map((d) => d.counts.reduce((a, b) => a + b, 0)), 1);
  const root = group({ class: "mark-rose", transform: translate((box.left + box.right) / 2, (box.top + box.bottom) / 2) });
  const width = (2 * Math.PI) / data.length;
  data.forEach(({ counts }, at) => {
    let inner = 0;
    counts.forEach((count, n) => {
      const outer = inner + (count / most) * radius;
      const [a, b] = [at * width - Math.PI / 2 - width * 0.4, at * width - Math.PI / 2 + width * 0.4];
      const p = (angle, r) => `${round(r * Math.cos(angle))} ${round(r * Math.sin(angle))}`;
      root.append(element("path", {
        d: `M${p(a, inner)}L${p(a, outer)}A${outer} ${outer} 0 0 1 ${p(b, outer)}L${p(b, inner)}Z`,
        fill: sequential(n / classes.length),
      }));
      inner = outer;
    });
  });
  return root;
}
