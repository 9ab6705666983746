import { ports } from "./ports.js";
const BASE = { adult: 1250, child: 625, islander: 480, dog: 300 };
const VEHICLES = { bicycle: 400, motorcycle: 1900, car: 3400, van: 5200, trailer: 4100 };
export function fare({ passengers, vehicle, from, to, offPeak }) {
  const zones = Math.abs(ports[from].zone - ports[to].zone) + 1;
  let cents = 0;
  for (const [kind, count] of Object.entries(passengers)) cents += (BASE[kind] ?? BASE.adult) * count;
  if (vehicle) cents += VEHICLES[vehicle];
  cents = Math.round(cents * (0.7 + 0.3 * zones));
  return offPeak ? Math.round((cents * 0.8) / 10) * 10 : cents;
}
