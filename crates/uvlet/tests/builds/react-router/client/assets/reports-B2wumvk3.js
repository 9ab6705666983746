const __vite__mapDeps=(i,m=__vite__mapDeps,d=(m.f||(m.f=["assets/BerthChart-BoneUv5g.js","assets/jsx-runtime-D7ohMsG5.js","assets/BerthChart-VkMZupED.css"])))=>i.map(i=>d[i]);
import"./jsx-runtime-D7ohMsG5.js";
export const lazy2=()=>w(()=>import(`./BerthChart-BoneUv5g.js`),__vite__mapDeps([0,1,2]));
function w(f){return f()}
export{};
