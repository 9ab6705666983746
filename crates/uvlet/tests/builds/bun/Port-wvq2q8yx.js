import{e,i,n}from"./index-erec4pkz.js";var o=[{id:"hol",name:"Hol"},{id:"tarn",name:"Tarn"}];var r=e(n());function d(){let{id:a}=i();return r.jsxDEV("h1",{children:o.find((m)=>m.id===a)?.name},void 0,!1,void 0,this)}export{d as default};

