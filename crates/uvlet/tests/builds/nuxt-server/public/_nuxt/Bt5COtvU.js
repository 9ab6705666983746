const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["./BX7myZrc.js","./BzI11tzz.js","./cDm3F6yV.js","./CezyJRGE.js","./EAG3x0ij.js","./D3pqG0wE.js","./BerthChart.CrOxY7c3.css"])))=>i.map(i=>d[i]);
import"./BzI11tzz.js";
import"#entry";
export const lazy3=()=>import(`./BX7myZrc.js`);
export{};
