__turbopack_load_page_chunks__("/ports/[id]", [
  "static/chunks/0p6kxswzzq1t0.js",
  "static/chunks/turbopack-32g9idqqcaa90.js"
])
