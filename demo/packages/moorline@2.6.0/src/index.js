// Everything, with every language registered: handy while developing.
import "./locale/index.js";
export * from "./core.js";
