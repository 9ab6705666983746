self.__BUILD_MANIFEST = {
  "/": [
    "static/chunks/1qmjaxa1osbxz.js"
  ],
  "/_error": [
    "static/chunks/0-u_1nnlqkh77.js"
  ],
  "/contact": [
    "static/chunks/16begt18e4p7v.js"
  ],
  "/ports/[id]": [
    "static/chunks/41od9otcc65uw.js"
  ],
  "/reports": [
    "static/chunks/2nz_6i5xvz50s.js"
  ],
  "__rewrites": {
    "afterFiles": [],
    "beforeFiles": [],
    "fallback": []
  },
  "sortedPages": [
    "/",
    "/_app",
    "/_error",
    "/contact",
    "/ports/[id]",
    "/reports"
  ]
};self.__TURBOPACK_PAGE_BOOTSTRAP = {"/contact":{"otherChunks":["static/chunks/0du-x_b-bwbyw.js"],"runtimeModuleIds":[783,9101]},"/":{"otherChunks":["static/chunks/0d95xv3nxhslz.js"],"runtimeModuleIds":[783,6242]},"/reports":{"otherChunks":["static/chunks/01zs_ky1rwkof.js","static/chunks/1cpc59pkdy9im.css"],"runtimeModuleIds":[783,6946]},"/ports/[id]":{"otherChunks":["static/chunks/0p6kxswzzq1t0.js"],"runtimeModuleIds":[783,6815]},"/_app":{"otherChunks":["static/chunks/14qlqaavmbprl.js","static/chunks/0k04xqqrz_3wv.js","static/chunks/073cj3bk5wdee.js","static/chunks/0qp2agba7e8br.css"],"runtimeModuleIds":[783,4801]},"/_error":{"otherChunks":["static/chunks/2tj7hvl-2g0o7.js"],"runtimeModuleIds":[783,184]}};self.__TURBOPACK_CHUNK_LOADING_GLOBAL = "TURBOPACK";self.__BUILD_MANIFEST_CB && self.__BUILD_MANIFEST_CB()