__turbopack_load_page_chunks__("/contact", [
  "static/chunks/0du-x_b-bwbyw.js",
  "static/chunks/turbopack-32g9idqqcaa90.js"
])
