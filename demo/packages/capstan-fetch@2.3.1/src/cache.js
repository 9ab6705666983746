export function cached(get, { lifetime = 60000, most = 50 } = {}) {
  const kept = new Map();
  return async function (path, options) {
    const key = path + JSON.stringify(options?.params ?? null);
    const hit = kept.get(key);
    if (hit && Date.now() - hit.at < lifetime) return hit.value;
    const value = get(path, options);
    kept.set(key, { at: Date.now(), value });
    if (kept.size > most) kept.delete(kept.keys().next().value);
    value.catch(() => kept.delete(key));
    return value;
  };
}
