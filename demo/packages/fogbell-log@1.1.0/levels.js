export const LEVELS = ["debug", "info", "warn", "error"];
export const levelOf = (name) => Math.max(0, LEVELS.indexOf(name));
