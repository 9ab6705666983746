import store from "./store.js";
export function derived(sources, compute) {
  const list = [].concat(sources);
  const read = () => compute(...list.map((source) => source.get()));
  const result = store(read());
  for (const source of list) source.subscribe(() => result.set(read()));
  return { get: result.get, subscribe: result.subscribe };
}
