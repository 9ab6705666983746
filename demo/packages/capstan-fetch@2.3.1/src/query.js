export function query(params) {
  const search = new URLSearchParams();
  for (const [key, value] of Object.entries(params ?? {})) {
    if (value === undefined || value === null) continue;
    for (const item of [].concat(value)) search.append(key, item instanceof Date ? item.toISOString() : item);
  }
  const text = search.toString();
  return text ? `?${text}` : "";
}
