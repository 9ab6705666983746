import { persisted } from "fairlead-bus";
export const trip = persisted("kelpwick-trip", { from: "kelpwick", to: "saint-orme", passengers: { adult: 1 }, vehicle: null, day: null, offPeak: false }, sessionStorage);
export const change = (part) => trip.set((now) => ({ ...now, ...part }));
export const heads = ({ passengers }) => Object.values(passengers).reduce((sum, count) => sum + count, 0);
