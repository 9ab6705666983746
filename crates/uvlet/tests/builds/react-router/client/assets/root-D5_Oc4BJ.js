import"./jsx-runtime-D7ohMsG5.js";
import"./errorBoundaries-17fn15L9.js";
export{};
