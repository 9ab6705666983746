import"./main-AM3PLE64.js";
export const lazy1=()=>import(`./chunk-C_pWUjup.js`);
export{};
