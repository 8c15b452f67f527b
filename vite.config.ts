import { sveltekit } from '@sveltejs/kit/vite';
import { optimizeCss } from 'carbon-preprocess-svelte';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';
import { playerPage } from './scripts/player.mjs';
import { HEADERS } from './scripts/server.mjs';

/** Carbon's style sheet would fetch its fonts from another origin; ours are shipped. */
const withoutRemoteFonts: Plugin = {
	name: 'without-remote-fonts',
	enforce: 'pre',
	transform: (code, id) =>
		id.includes('carbon-components-svelte/css') ? code.replace(/@font-face\s*\{[^}]*\}/g, '') : null
};

export default defineConfig({
	worker: { format: 'es', plugins: () => [playerPage()] },
	server: { headers: HEADERS },
	plugins: [withoutRemoteFonts, playerPage(), sveltekit(), optimizeCss()],
	test: {
		include: ['src/**/*.test.ts'],
		setupFiles: ['tests/seed.ts'],
		environment: 'node',
		testTimeout: 60_000,
		hookTimeout: 60_000
	}
});
