import"./CezyJRGE.js";
import"./BzI11tzz.js";
export{};
