import { availableParallelism } from 'node:os';
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
		// Long before a test is slow the machine is: what hangs ends all the same.
		testTimeout: 600_000,
		hookTimeout: 600_000,
		setupFiles: ['tests/seed.ts'],
		environment: 'node',
		// By itself it would leave one of two processors idle.
		maxWorkers: Math.max(2, availableParallelism() - 1),
		projects: [
			// The core keeps nothing between two tests, so that its modules are loaded once.
			{ extends: true, test: { name: 'core', include: ['src/core/**/*.test.ts'], isolate: false } },
			{ extends: true, test: { name: 'app', include: ['src/{cli,lib,routes,workers}/**/*.test.ts'] } }
		]
	}
});
