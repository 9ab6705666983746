import"./BzI11tzz.js";
export{};
