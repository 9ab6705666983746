export function bisect(fn, low, high, tolerance = 1e-6) {
  let left = fn(low);
  if (left * fn(high) > 0) return null;
  while (high - low > tolerance) {
    const middle = (low + high) / 2;
    const value = fn(middle);
    if (left * value <= 0) high = middle;
    else {
      low = middle;
      left = value;
    }
  }
  return (low + high) / 2;
}
export function newton(fn, slope, start, steps = 20, tolerance = 1e-9) {
  let x = start;
  for (let at = 0; at < steps; at++) {
    const change = fn(x) / slope(x);
    x -= change;
    if (Math.abs(change) < tolerance) return x;
  }
  return x;
}
