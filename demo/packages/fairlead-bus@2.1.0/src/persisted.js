import store from "./store.js";
export function persisted(key, initial, storage = globalThis.localStorage) {
  let saved = initial;
  try {
    const text = storage?.getItem(key);
    if (text !== null && text !== undefined) saved = JSON.parse(text);
  } catch {
    saved = initial;
  }
  const result = store(saved);
  result.subscribe((value) => {
    try {
      storage?.setItem(key, JSON.stringify(value));
    } catch {
      // A full or forbidden storage must not break the page.
    }
  });
  return result;
}
