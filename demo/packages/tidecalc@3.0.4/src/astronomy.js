const DEGREES = Math.PI / 180;
const J2000 = Date.UTC(2000, 0, 1, 12);
const wrap = (angle) => ((angle % 360) + 360) % 360;
/** Mean longitudes of moon, sun, lunar perigee, lunar node and solar perigee, in degrees. */
export function longitudes(time) {
  const days = (time - J2000) / 86400000;
  return {
    s: wrap(218.3164477 + 13.17639648 * days),
    h: wrap(280.4661 + 0.98564736 * days),
    p: wrap(83.3532465 + 0.11140353 * days),
    N: wrap(125.04452 - 0.05295377 * days),
    pp: wrap(282.9384 + 0.0000470684 * days),
    hour: ((time % 86400000) / 3600000) * 15,
  };
}
export const radians = (degrees) => degrees * DEGREES;
export const cosine = (degrees) => Math.cos(degrees * DEGREES);
export const sine = (degrees) => Math.sin(degrees * DEGREES);
