// Each tool by itself: the belt's index is CommonJS and comes whole.
export { default as inHeaps } from "ropework/lib/inHeaps.js";
export { default as afterQuiet } from "ropework/lib/afterQuiet.js";
