
export{};
