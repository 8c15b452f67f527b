// All data are in the browser: the server has nothing to render.
export const ssr = false;
export const prerender = false;
