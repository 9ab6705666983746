import store, { derived, persisted } from "fairlead-bus";
export const session = persisted("kelpwick-session", { port: "kelpwick", favourites: [] });
export const online = store(navigator.onLine);
addEventListener("online", () => online.set(true));
addEventListener("offline", () => online.set(false));
export const homePort = derived([session], (now) => now.port);
export function toggleFavourite(sailing) {
  session.set((now) => ({
    ...now,
    favourites: now.favourites.includes(sailing) ? now.favourites.filter((id) => id !== sailing) : [...now.favourites, sailing],
  }));
}
