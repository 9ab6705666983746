import"node:path";
import"node:url";
export{};
