__turbopack_load_page_chunks__("/reports", [
  "static/chunks/01zs_ky1rwkof.js",
  "static/chunks/1cpc59pkdy9im.css",
  "static/chunks/turbopack-32g9idqqcaa90.js"
])
