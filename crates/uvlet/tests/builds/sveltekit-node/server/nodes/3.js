

export const index = 3;
let component_cache;
export const component = async () => component_cache ??= (await import('../entries/pages/contact/_page.svelte.js')).default;
export const imports = ["_app/immutable/nodes/3.DLCoTKWZ.js","_app/immutable/chunks/5gM6TAil.js"];
export const stylesheets = [];
export const fonts = [];
