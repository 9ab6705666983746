import"./main-AM3PLE64.js";
export{};
