import"./5gM6TAil.js";
import"./Bd7tZRL4.js";
import"../entry/payload.DSmR2FwN.js";
export{};
