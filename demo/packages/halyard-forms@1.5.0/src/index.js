export { form } from "./form.js";
export { field } from "./field.js";
export * as check from "./checks/index.js";
export { summary } from "./summary.js";
export { draft } from "./draft.js";
