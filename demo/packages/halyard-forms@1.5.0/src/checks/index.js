export { required } from "./required.js";
export { email } from "./email.js";
export { phone } from "./phone.js";
export { between } from "./between.js";
export { date } from "./date.js";
export { matches } from "./matches.js";
export { sameAs } from "./same-as.js";
