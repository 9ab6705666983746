/** Keeps what was typed in session storage, so that a reload loses nothing. */
export function draft({ state, fields }, key, skip = []) {
  const saved = JSON.parse(sessionStorage.getItem(key) ?? "{}");
  for (const { name, input } of fields) {
    if (!(name in saved) || skip.includes(name)) continue;
    if (input.type === "checkbox") input.checked = saved[name];
    else input.value = saved[name];
  }
  return state.subscribe(({ values }) => {
    const kept = Object.entries(values).filter(([name]) => !skip.includes(name));
    sessionStorage.setItem(key, JSON.stringify(Object.fromEntries(kept)));
  });
}
