const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["../chunks/DYtxHhxa.js","../chunks/5gM6TAil.js","../chunks/BM4K7KLa.js","../assets/BerthChart.5wnF7dLR.css"])))=>i.map(i=>d[i]);
import"../chunks/XKyaHtl9.js";
import"../chunks/5gM6TAil.js";
import"../chunks/DclECHGd.js";
export const lazy4=()=>import(`../chunks/DYtxHhxa.js`);
export{};
