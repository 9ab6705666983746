export function bounds(points) {
  const box = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    box[0] = Math.min(box[0], x);
    box[1] = Math.min(box[1], y);
    box[2] = Math.max(box[2], x);
    box[3] = Math.max(box[3], y);
  }
  return box;
}
export const contains = ([west, south, east, north], [x, y]) => x >= west && x <= east && y >= south && y <= north;
export const expand = ([west, south, east, north], by) => [west - by, south - by, east + by, north + by];
