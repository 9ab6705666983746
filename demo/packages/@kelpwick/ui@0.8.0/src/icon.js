const PATHS = {
  notice: "M12 2a10 10 0 1 0 0 20 10 10 0 0 0 0-20zm1 15h-2v-6h2zm0-8h-2V7h2z",
  warning: "M1 21h22L12 2zm12-3h-2v-2h2zm0-4h-2v-4h2z",
  ferry: "M4 18l-2-6h3V8h5V4h4v4h5v4h3l-2 6c-2 0-3 1-4 1s-2-1-4-1-3 1-4 1-2-1-4-1z",
  clock: "M12 2a10 10 0 1 0 0 20 10 10 0 0 0 0-20zm1 5v5l4 3-1 2-5-4V7z",
  tide: "M2 8c3 0 3 2 5 2s2-2 5-2 3 2 5 2 2-2 5-2v3c-3 0-3 2-5 2s-2-2-5-2-3 2-5 2-2-2-5-2z",
  person: "M12 12a5 5 0 1 0 0-10 5 5 0 0 0 0 10zm0 2c-4 0-9 2-9 6v2h18v-2c0-4-5-6-9-6z",
};
export function icon(name, size = 20) {
  const template = document.createElement("template");
  template.innerHTML = `<svg viewBox="0 0 24 24" width="${size}" height="${size}" aria-hidden="true"><path fill="currentColor" d="${PATHS[name] ?? PATHS.notice}"/></svg>`;
  return template.content.firstChild;
}
