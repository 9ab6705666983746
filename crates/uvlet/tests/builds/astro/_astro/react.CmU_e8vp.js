import"./rolldown-runtime.WkwZ5CU-.js";
export{};
