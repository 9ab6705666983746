__turbopack_load_page_chunks__("/", [
  "static/chunks/0d95xv3nxhslz.js",
  "static/chunks/turbopack-32g9idqqcaa90.js"
])
