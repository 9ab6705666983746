

export const index = 4;
let component_cache;
export const component = async () => component_cache ??= (await import('../entries/pages/ports/_id_/_page.svelte.js')).default;
export const imports = ["_app/immutable/nodes/4.Dg3R9NJQ.js","_app/immutable/chunks/5gM6TAil.js","_app/immutable/chunks/Bd7tZRL4.js","_app/immutable/entry/payload.DSmR2FwN.js","_app/immutable/chunks/BM4K7KLa.js","_app/immutable/chunks/CIUoD_QQ.js"];
export const stylesheets = [];
export const fonts = [];
