export { Emitter } from "./emitter.js";
export { derived } from "./derived.js";
export { persisted } from "./persisted.js";
export { default } from "./store.js";
