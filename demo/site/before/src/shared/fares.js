import { ports } from "./ports.js";
const BASE = { adult: 1250, child: 625, islander: 480, dog: 300 };
const VEHICLES = { bicycle: 400, motorcycle: 1900, car: 3400, van: 5200, trailer: 4100 };
/** Fares of the years before zones, kept for refunds. */
const OLD_ROUTES = [
  ["kelpwick", "saint-orme", 980], ["kelpwick", "gull-holm", 1040], ["kelpwick", "tarnsey", 1320],
  ["saint-orme", "gull-holm", 760], ["saint-orme", "tarnsey", 890], ["gull-holm", "tarnsey", 640],
  ["kelpwick", "north-skerry", 1610], ["tarnsey", "north-skerry", 1180], ["gull-holm", "north-skerry", 1270],
];
function indexRoutes(routes) {
  const index = new Map();
  for (const [from, to, cents] of routes) {
    index.set(`${from}>${to}`, { from: ports[from], to: ports[to], cents });
    index.set(`${to}>${from}`, { from: ports[to], to: ports[from], cents });
  }
  return index;
}
export const archivedFares = indexRoutes(OLD_ROUTES);
export function fare({ passengers, vehicle, from, to, offPeak }) {
  const zones = Math.abs(ports[from].zone - ports[to].zone) + 1;
  let cents = 0;
  for (const [kind, count] of Object.entries(passengers)) cents += (BASE[kind] ?? BASE.adult) * count;
  if (vehicle) cents += VEHICLES[vehicle];
  cents = Math.round(cents * (0.7 + 0.3 * zones));
  return offPeak ? Math.round((cents * 0.8) / 10) * 10 : cents;
}
