export function mercator([lon, lat]) {
  const x = (lon + 180) / 360;
  const s = Math.sin((lat * Math.PI) / 180);
  return [x, 0.5 - Math.log((1 + s) / (1 - s)) / (4 * Math.PI)];
}
export function unmercator([x, y]) {
  return [x * 360 - 180, 90 - (360 * Math.atan(Math.exp((y - 0.5) * 2 * Math.PI))) / Math.PI];
}
