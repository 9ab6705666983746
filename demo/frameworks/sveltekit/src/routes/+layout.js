// The pages draw themselves in the browser.
export const ssr = false;
export const prerender = true;
