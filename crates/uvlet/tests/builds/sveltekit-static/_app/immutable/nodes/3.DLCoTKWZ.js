import"../chunks/5gM6TAil.js";
export{};
