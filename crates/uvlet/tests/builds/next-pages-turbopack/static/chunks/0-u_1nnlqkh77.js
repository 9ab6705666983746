__turbopack_load_page_chunks__("/_error", [
  "static/chunks/2tj7hvl-2g0o7.js",
  "static/chunks/turbopack-32g9idqqcaa90.js"
])
