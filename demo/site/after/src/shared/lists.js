// Each tool by itself: the belt's index is CommonJS and comes whole.
export { default as groupBy } from "ropework/lib/groupBy.js";
export { default as debounce } from "ropework/lib/debounce.js";
