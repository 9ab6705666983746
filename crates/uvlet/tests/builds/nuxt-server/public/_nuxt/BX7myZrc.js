import"./BzI11tzz.js";
import"#entry";
export{};
