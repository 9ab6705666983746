export { lerp, inverseLerp, smoothstep } from "./interpolate.js";
export { mean, median, deviation, quantile } from "./stats.js";
export { bisect, newton } from "./roots.js";
export { fitLine, fitParabola } from "./fit.js";
