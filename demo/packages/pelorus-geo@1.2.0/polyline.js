function number(value) {
  let bits = value < 0 ? ~(value << 1) : value << 1;
  let text = "";
  while (bits >= 32) {
    text += String.fromCharCode((32 | (bits & 31)) + 63);
    bits >>= 5;
  }
  return text + String.fromCharCode(bits + 63);
}
export function encode(points) {
  let text = "";
  let [px, py] = [0, 0];
  for (const [x, y] of points.map((p) => p.map((v) => Math.round(v * 1e5)))) {
    text += number(y - py) + number(x - px);
    [px, py] = [x, y];
  }
  return text;
}
export function decode(text) {
  const points = [];
  let at = 0;
  const sum = [0, 0];
  while (at < text.length) {
    for (const axis of [1, 0]) {
      let [shift, bits, byte] = [0, 0, 0];
      do {
        byte = text.charCodeAt(at++) - 63;
        bits |= (byte & 31) << shift;
        shift += 5;
      } while (byte >= 32);
      sum[axis] += bits & 1 ? ~(bits >> 1) : bits >> 1;
    }
    points.push([sum[0] / 1e5, sum[1] / 1e5]);
  }
  return points;
}
