import"./BzI11tzz.js";
import"./D3pqG0wE.js";
export{};
