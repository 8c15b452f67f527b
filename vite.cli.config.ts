import { resolve } from 'node:path';
import { defineConfig } from 'vite';
import { playerPage } from './scripts/player.mjs';

// The command line is the same core in one file, so that `npx yphos` starts without a loader.
export default defineConfig({
	plugins: [playerPage()],
	resolve: { alias: { $core: resolve('src/core'), $demo: resolve('demo'), $lib: resolve('src/lib') } },
	build: {
		ssr: 'src/cli/main.ts',
		outDir: 'build/cli',
		emptyOutDir: true,
		target: 'node20',
		copyPublicDir: false,
		rollupOptions: { output: { entryFileNames: 'yphos.mjs', banner: '#!/usr/bin/env node' } }
	},
	ssr: { noExternal: true }
});
