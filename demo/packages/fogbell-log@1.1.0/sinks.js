const ring = [];
export const sinks = [
  (entry) => {
    const method = entry.level === "error" ? "error" : entry.level === "warn" ? "warn" : "log";
    console[method](`[${entry.scope}] ${entry.message}`, entry.detail ?? "");
  },
  (entry) => {
    ring.push(entry);
    if (ring.length > 200) ring.shift();
  },
];
export const recent = () => [...ring];
