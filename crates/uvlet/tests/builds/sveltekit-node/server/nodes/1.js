

export const index = 1;
let component_cache;
export const component = async () => component_cache ??= (await import('../entries/fallbacks/error.svelte.js')).default;
export const imports = ["_app/immutable/nodes/1.B7LUnXhJ.js","_app/immutable/chunks/5gM6TAil.js","_app/immutable/chunks/Bd7tZRL4.js","_app/immutable/entry/payload.DSmR2FwN.js","_app/immutable/chunks/CIUoD_QQ.js"];
export const stylesheets = [];
export const fonts = [];
