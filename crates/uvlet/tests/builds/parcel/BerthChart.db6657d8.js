let e=globalThis;var n=e.parcelRequireaef2,r=n.register;r("cZxOK",function(e,t){t.default=()=>1});
