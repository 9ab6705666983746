export const CATEGORICAL = ["#1b6f8a", "#d0772c", "#5f8f3e", "#a4477d", "#7a6bb0", "#b5992b", "#4e5d6c", "#c25b56"];
const stops = [[12, 44, 72], [21, 101, 130], [82, 160, 158], [181, 208, 160], [247, 238, 196]];
/** A sequential colour for a share between 0 and 1. */
export function sequential(share) {
  const at = Math.min(0.9999, Math.max(0, share)) * (stops.length - 1);
  const low = Math.floor(at);
  const channel = (i) => Math.round(stops[low][i] + (stops[low + 1][i] - stops[low][i]) * (at - low));
  return `rgb(${channel(0)} ${channel(1)} ${channel(2)})`;
}
export function contrast(color) {
  const [r, g, b] = color.match(/\d+/g)?.map(Number) ?? [0, 0, 0];
  return r * 0.299 + g * 0.587 + b * 0.114 > 150 ? "#000" : "#fff";
}
