import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { optimizeImports } from 'carbon-preprocess-svelte';

/** @type {import('@sveltejs/kit').Config} */
const config = {
	preprocess: [vitePreprocess(), optimizeImports()],
	kit: {
		adapter: adapter({ out: 'build', precompress: true }),
		alias: { $core: 'src/core', $demo: 'demo' },
		// Nothing is asked of any other origin, and nothing inline runs: docs/adr/0004-content-security.md
		csp: {
			mode: 'hash',
			directives: {
				'default-src': ['none'],
				'script-src': ['self'],
				'style-src': ['self'],
				// One inline style, by its digest: the framework's own element that announces page changes to screen readers.
				'style-src-attr': ['unsafe-hashes', 'sha256-S8qMpvofolR8Mpjy4kQvEm7m1q8clzU4dfDH0AmvZjo='],
				'font-src': ['self'],
				'img-src': ['self', 'data:'],
				'connect-src': ['self'],
				// A stream that is tried is handed to the browser piece by piece.
				'media-src': ['self', 'blob:'],
				'worker-src': ['self'],
				'manifest-src': ['self'],
				'base-uri': ['none'],
				'form-action': ['none'],
				'frame-ancestors': ['none']
			}
		},
		// One shell serves every page, from the server or from the service worker, so its links may not depend on where it stands.
		paths: { relative: false }
	}
};
export default config;
