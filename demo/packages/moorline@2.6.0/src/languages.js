const known = new Map();
export function register(name, data) {
  known.set(name, data);
}
export function language(name) {
  const found = known.get(name) ?? known.get(name.split("-")[0]) ?? known.get("en");
  if (!found) throw new Error(`moorline: language ${name} is not registered`);
  return found;
}
export const languages = () => [...known.keys()];
