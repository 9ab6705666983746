export { format } from "./format.js";
export { parse } from "./parse.js";
export { add, startOf, difference } from "./arithmetic.js";
export { relative } from "./relative.js";
export { register, language, languages } from "./languages.js";
