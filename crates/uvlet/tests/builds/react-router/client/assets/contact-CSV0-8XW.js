import"./jsx-runtime-D7ohMsG5.js";
export{};
