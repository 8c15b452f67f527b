// node scripts/screenshots.mjs: makes the pictures of docs/screenshots anew from the demo workshop.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { chromium } from '@playwright/test';
import { ensureBuild } from './build.mjs';
import { ensureChromium, LAUNCH } from './chromium.mjs';
import { root } from './run.mjs';

const PORT = '4177';
const SHOTS = [
	{ name: 'shelf', path: '/' },
	{ name: 'endpoint-sound', path: '/endpoint/bunkhouse-lounge/plan/sound' },
	{ name: 'endpoint-power', path: '/endpoint/fog-horn-room/plan/power' },
	{
		name: 'endpoint-notices',
		path: '/endpoint/ticket-hatch/plan/notices',
		prepare: async (page) => {
			await page.getByRole('button', { name: /^Ferry, column/ }).click();
			await page.evaluate(() => document.querySelector('.strip').scrollIntoView());
		}
	},
	{ name: 'endpoint-parts', path: '/endpoint/fog-horn-room/plan/parts' },
	{ name: 'endpoint-receiving', path: '/endpoint/test-bench/plan/receiving' },
	{ name: 'week', path: '/week', prepare: (page) => page.getByText(/is never on/).waitFor() },
	{ name: 'parts-drawer', path: '/parts' },
	{ name: 'shopping', path: '/shopping' },
	{ name: 'endpoint-card', path: '/endpoint/bunkhouse-lounge/plan/card' },
	{ name: 'endpoint-network', path: '/endpoint/lamp-room/plan/network' },
	{
		name: 'write-card',
		path: '/endpoint/bunkhouse-lounge/write-card',
		prepare: async (page) => {
			const fixture = (path) => resolve(root, 'src/core', path);
			await page.locator('input[type=file]').first().setInputFiles(fixture('image/fixtures/mbr.img.gz'));
			const listing = readFileSync(fixture('disks/fixtures/linux-laptop.json'), 'utf8');
			await page.getByLabel(/What it printed, with the card in/).fill(listing);
			await page.getByRole('button', { name: 'Choose', exact: true }).click();
			await page.getByLabel('Size and model of the card').fill('31.9 GB Card Reader');
		}
	},
	{ name: 'endpoint-sources', path: '/endpoint/bunkhouse-lounge/plan/sources' },
	{ name: 'endpoint-programme', path: '/endpoint/ticket-hatch/plan/programme' },
	{
		name: 'card-files',
		path: '/endpoint/bunkhouse-lounge/files',
		prepare: (page) => page.getByText('audio-device=').click()
	},
	{
		name: 'rehearsal',
		path: '/endpoint/bunkhouse-lounge/rehearsal',
		lamp: true,
		prepare: async (page) => {
			await page.getByText(/Sound after/).waitFor();
			await page.getByRole('button', { name: 'Unplug converter' }).click();
			await page.getByText(/Unplug converter at/).waitFor();
		}
	},
	{ name: 'endpoint-picture', path: '/endpoint/ticket-hatch/plan/picture' },
	{ name: 'endpoint-delivery', path: '/endpoint/ticket-hatch/plan/delivery' },
	{ name: 'phone-run-sheet', path: '/endpoint/bunkhouse-lounge/run-sheet', width: 360 }
];

ensureBuild();
ensureChromium();
const server = spawn(process.execPath, [resolve(root, 'build', 'index.js'), '--port', PORT], {
	env: process.env,
	stdio: 'ignore'
});
await new Promise((done) => setTimeout(done, 1500));
const browser = await chromium.launch(LAUNCH);
for (const { name, path, width = 1280, lamp, prepare } of SHOTS) {
	const context = await browser.newContext({
		viewport: { width, height: 800 },
		colorScheme: lamp ? 'dark' : 'light',
		serviceWorkers: 'block',
		locale: 'en-GB'
	});
	const page = await context.newPage();
	await page.goto(`http://127.0.0.1:${PORT}${path}`);
	await page.waitForTimeout(700);
	if (prepare) await prepare(page);
	await page.waitForTimeout(400);
	await page.waitForFunction(() => document.querySelector('[aria-label="being looked at"]') === null);
	await page.screenshot({ path: resolve(root, 'docs', 'screenshots', `${name}.png`) });
	await context.close();
}
await browser.close();
server.kill();
