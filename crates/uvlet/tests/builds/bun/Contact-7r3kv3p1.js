import"./index-erec4pkz.js";
export default()=>1;
