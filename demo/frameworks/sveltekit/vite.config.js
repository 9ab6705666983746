import adapter from "@sveltejs/adapter-static";
import { sveltekit } from "@sveltejs/kit/vite";

export default {
  plugins: [sveltekit({ adapter: adapter({ pages: "build", fallback: "200.html" }) })],
  build: { sourcemap: true },
};
