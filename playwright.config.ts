import { defineConfig } from '@playwright/test';
import { LAUNCH } from './scripts/chromium.mjs';

const PORT = 4179;

export default defineConfig({
	testDir: 'tests',
	// A slow or shared machine is no failure: what never comes fails all the same, only later.
	timeout: 240_000,
	expect: { timeout: 30_000 },
	retries: 0,
	workers: 2,
	// What is about milliseconds runs alone, after all else.
	projects: [
		{ name: 'pages', testIgnore: /killed/ },
		{ name: 'killed', testMatch: /killed/, dependencies: ['pages'] }
	],
	use: {
		baseURL: `http://127.0.0.1:${PORT}`,
		viewport: { width: 1280, height: 800 },
		colorScheme: 'light',
		locale: 'en-GB',
		timezoneId: 'Europe/Oslo',
		serviceWorkers: 'block',
		launchOptions: LAUNCH
	},
	webServer: {
		command: `node build/index.js --port ${PORT}`,
		url: `http://127.0.0.1:${PORT}/`,
		reuseExistingServer: false
	}
});
