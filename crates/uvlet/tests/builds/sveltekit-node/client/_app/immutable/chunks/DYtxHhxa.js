import"./5gM6TAil.js";
import"./BM4K7KLa.js";
export{};
