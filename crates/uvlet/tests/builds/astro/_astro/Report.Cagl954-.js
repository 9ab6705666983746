const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["_astro/BerthChart.BKCAUxT2.js","_astro/react.CmU_e8vp.js","_astro/rolldown-runtime.WkwZ5CU-.js","_astro/jsx-runtime.D3mHhbkX.js"])))=>i.map(i=>d[i]);
import"./rolldown-runtime.WkwZ5CU-.js";
import"./react.CmU_e8vp.js";
import"./jsx-runtime.D3mHhbkX.js";
export const lazy4=()=>w(()=>import(`./BerthChart.BKCAUxT2.js`),__vite__mapDeps([0,1,2,3]));
function w(f){return f()}
export{};
