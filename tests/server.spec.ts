import { request as plain } from 'node:http';
import { expect, test } from '@playwright/test';
import { isOurName, readArguments } from '../scripts/server.mjs';

const HEADERS = {
	'x-content-type-options': 'nosniff',
	'referrer-policy': 'no-referrer',
	'cross-origin-opener-policy': 'same-origin',
	'cross-origin-embedder-policy': 'require-corp',
	'x-frame-options': 'DENY'
};
const ask = (url: string, host: string): Promise<number> =>
	new Promise((done, failed) =>
		plain(url, { headers: { Host: host } }, (response) => (response.resume(), done(response.statusCode!)))
			.on('error', failed)
			.end()
	);

test('every answer carries the headers, and the page forbids to be framed', async ({ request, page }) => {
	const shell = await request.get('/');
	expect(shell.headers()).toMatchObject(HEADERS);
	expect(shell.headers()['content-security-policy']).toContain("frame-ancestors 'none'");
	const script = /_app\/[^"]+\.js/.exec(await shell.text())![0];
	expect((await request.get(`/${script}`)).headers()).toMatchObject(HEADERS);
	// What was kept is asked for anew, and the answer's headers are written over those that were kept.
	const unchanged = await request.get('/', { headers: { 'If-None-Match': shell.headers().etag! } });
	expect(unchanged.status()).toBe(304);
	expect(unchanged.headers()['content-security-policy'] ?? '').not.toContain("default-src 'none'; base-uri");
	await page.goto('/');
	await page.reload();
	await expect(page.getByRole('navigation', { name: 'Shelf' })).toBeVisible();
	expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
});

test('another name than this computer\u2019s own is refused, unless asked for', async ({ baseURL }) => {
	expect(await ask(`${baseURL}/`, 'localhost:4179')).toBe(200);
	for (const host of ['evil.example', 'evil.example:4179', '192.168.40.7', 'localhost.evil.example'])
		expect(await ask(`${baseURL}/`, host), host).toBe(403);
	const local = { lan: false, names: ['workbench.local'] };
	expect(isOurName('workbench.local:4180', local)).toBe(true);
	expect(isOurName('192.168.40.7', { lan: true, names: [] })).toBe(true);
	expect(isOurName('evil.example', { lan: true, names: [] })).toBe(false);
	expect(isOurName(undefined, local)).toBe(false);
	expect(readArguments(['--lan', '--port', '80', '--name', 'A.local'])).toEqual({
		port: 80,
		lan: true,
		names: ['a.local']
	});
	for (const wrong of [
		['--port', 'x'],
		['--host', '0.0.0.0'],
		['--name', 'a b']
	])
		expect(readArguments(wrong)).toBeNull();
});
