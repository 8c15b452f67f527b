import { sveltekit } from '@sveltejs/kit/vite';
import { optimizeCss } from 'carbon-preprocess-svelte';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	// optimizeCss also drops the font faces that Carbon would fetch from elsewhere.
	plugins: [sveltekit(), optimizeCss()],
	test: { include: ['src/**/*.test.ts'], environment: 'node', testTimeout: 60_000 }
});
