const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["./DHsQaycd.js","./EAG3x0ij.js","./CezyJRGE.js","./BzI11tzz.js","./CCflzexq.js","./D3pqG0wE.js","./Bt5COtvU.js","./DFBoyIC3.js","./DiWWRLPM.js","./default.BNHiioK_.css","./Co6RCjSY.js","./error-404.Bb87HomL.css","./Qr-w8asj.js","./error-500.Bwd7zAaE.css"])))=>i.map(i=>d[i]);
import"./CezyJRGE.js";
import"./EAG3x0ij.js";
import"./D3pqG0wE.js";
import"./BzI11tzz.js";
export const table5=[{name:`ports-id`,path:`/ports/:id()`,component:()=>Z(()=>import(`./DHsQaycd.js`),__vite__mapDeps([0,1,2,3]),import.meta.url)},{name:`contact`,path:`/contact`,component:()=>Z(()=>import(`./CCflzexq.js`),__vite__mapDeps([4,3,5]),import.meta.url)},{name:`reports`,path:`/reports`,component:()=>Z(()=>import(`./Bt5COtvU.js`),__vite__mapDeps([6,3]),import.meta.url)},{name:`index`,path:`/`,component:()=>Z(()=>import(`./DFBoyIC3.js`),__vite__mapDeps([7,3]),import.meta.url)}];
export const table6={default:ze(()=>Z(()=>import(`./DiWWRLPM.js`).then(e=>e.default||e),__vite__mapDeps([8,3,9]),import.meta.url))};
export const lazy7=()=>w(()=>import(`./Co6RCjSY.js`),__vite__mapDeps([10,3,11]),import.meta.url);
export const lazy8=()=>w(()=>import(`./Qr-w8asj.js`),__vite__mapDeps([12,3,13]),import.meta.url);
function w(f){return f()}
export{};
