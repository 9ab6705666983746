

export const index = 5;
let component_cache;
export const component = async () => component_cache ??= (await import('../entries/pages/reports/_page.svelte.js')).default;
export const imports = ["_app/immutable/nodes/5.BFEMCYRk.js","_app/immutable/chunks/XKyaHtl9.js","_app/immutable/chunks/5gM6TAil.js","_app/immutable/chunks/DclECHGd.js"];
export const stylesheets = ["_app/immutable/assets/5.BN2SXTVv.css"];
export const fonts = [];
