import"./handler.js";
