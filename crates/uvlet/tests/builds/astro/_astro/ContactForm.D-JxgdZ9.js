import"./react.CmU_e8vp.js";
import"./jsx-runtime.D3mHhbkX.js";
export{};
