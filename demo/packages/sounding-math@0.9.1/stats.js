export const mean = (list) => list.reduce((sum, x) => sum + x, 0) / list.length;
export function quantile(list, p) {
  const sorted = [...list].sort((a, b) => a - b);
  const at = (sorted.length - 1) * p;
  const low = Math.floor(at);
  const high = Math.ceil(at);
  return sorted[low] + (sorted[high] - sorted[low]) * (at - low);
}
export const median = (list) => quantile(list, 0.5);
export function deviation(list) {
  const m = mean(list);
  return Math.sqrt(mean(list.map((x) => (x - m) ** 2)));
}
