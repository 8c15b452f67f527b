import { resolve } from 'node:path';
import { defineConfig } from 'vitest/config';
import { playerPage } from './scripts/player.mjs';

// A mutation is to be found by what stands beside it, not by those tests that try everything on everything.
export default defineConfig({
	plugins: [playerPage()],
	resolve: { alias: { $core: resolve('src/core'), $demo: resolve('demo'), $lib: resolve('src/lib') } },
	test: {
		include: (process.env.MUTATE_TESTS ?? 'src/core/**/*.test.ts').split(' '),
		exclude: ['**/everyLine.test.ts', '**/anyWorkshop.test.ts', '**/node_modules/**'],
		setupFiles: ['tests/seed.ts'],
		environment: 'node',
		testTimeout: 60_000
	}
});
