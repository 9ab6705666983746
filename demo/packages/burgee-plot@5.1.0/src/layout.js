export function frame(width, height, margin = {}) {
  const { top = 16, right = 16, bottom = 32, left = 44 } = margin;
  return { width, height, top, left, right: width - right, bottom: height - bottom };
}
export function stack(series, { offset = "zero" } = {}) {
  const totals = series[0].map((_, at) => series.reduce((sum, s) => sum + s[at], 0));
  const base = totals.map((total) => (offset === "center" ? -total / 2 : 0));
  return series.map((values) =>
    values.map((value, at) => {
      const low = base[at];
      base[at] += offset === "share" ? value / (totals[at] || 1) : value;
      return [low, base[at]];
    }),
  );
}
export function dodge(items, radius) {
  const placed = [];
  for (const item of [...items].sort((a, b) => a.x - b.x)) {
    let y = 0;
    while (placed.some((p) => Math.hypot(p.x - item.x, p.y - y) < 2 * radius)) y = y > 0 ? -y : radius - y;
    placed.push({ ...item, y });
  }
  return placed;
}
