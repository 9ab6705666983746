import"./rolldown-runtime.WkwZ5CU-.js";
import"./react.CmU_e8vp.js";
export{};
