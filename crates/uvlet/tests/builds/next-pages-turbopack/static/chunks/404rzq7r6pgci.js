__turbopack_load_page_chunks__("/_app", [
  "static/chunks/14qlqaavmbprl.js",
  "static/chunks/0k04xqqrz_3wv.js",
  "static/chunks/073cj3bk5wdee.js",
  "static/chunks/0qp2agba7e8br.css",
  "static/chunks/turbopack-32g9idqqcaa90.js"
])
