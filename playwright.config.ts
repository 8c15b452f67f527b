import { defineConfig } from '@playwright/test';
import { LAUNCH } from './scripts/chromium.mjs';

const PORT = 4179;

export default defineConfig({
	testDir: 'tests',
	timeout: 60_000,
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
