import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { chromium, expect, test } from '@playwright/test';
import { LAUNCH } from '../scripts/chromium.mjs';

const PORT = 4188;
const ADDRESS = '10.77.0.1';
const HOST = 'yphos-lan';
/** Another computer of the network is a namespace of its own, joined by a cable that is none. Sources: ip-netns(8), veth(4). */
const ip = (...args: string[]): void => void execFileSync('ip', args, { stdio: 'ignore' });
function joined(): boolean {
	try {
		ip('netns', 'add', HOST);
		ip('link', 'add', 'yphos0', 'type', 'veth', 'peer', 'name', 'yphos1', 'netns', HOST);
		ip('addr', 'add', `${ADDRESS}/24`, 'dev', 'yphos0');
		ip('link', 'set', 'yphos0', 'up');
		ip('-n', HOST, 'addr', 'add', '10.77.0.2/24', 'dev', 'yphos1');
		ip('-n', HOST, 'link', 'set', 'yphos1', 'up');
		return true;
	} catch {
		return false;
	}
}
function parted(): void {
	for (const args of [
		['netns', 'del', HOST],
		['link', 'del', 'yphos0']
	])
		try {
			ip(...args);
		} catch {
			// It was never there.
		}
}
const there = (...argv: string[]): string =>
	execFileSync('ip', ['netns', 'exec', HOST, ...argv], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] });

test.describe('from another computer of the network', () => {
	let server: ChildProcess;
	let said = '';
	test.beforeAll(async () => {
		parted();
		test.skip(!joined(), 'a network namespace cannot be made here: it needs root and iproute2');
		server = spawn(process.execPath, ['build/index.js', '--lan', '--port', String(PORT)]);
		server.stdout!.on('data', (piece) => (said += piece));
		await expect.poll(() => said, { timeout: 30_000 }).toContain('fingerprint');
	});
	test.afterAll(() => {
		server?.kill();
		parted();
	});

	test('the app is whole: encrypted, with all that a browser gives to that alone, and keeps what is typed', async () => {
		expect(said).toContain(`Other computers: https://${ADDRESS}:${PORT}`);
		const [, fingerprint] = /((?:[0-9A-F]{2}:){31}[0-9A-F]{2})/.exec(said)!;
		const shown = there(
			'sh',
			'-c',
			`openssl s_client -connect ${ADDRESS}:${PORT} </dev/null | openssl x509 -noout -fingerprint -sha256`
		);
		expect(shown).toContain(fingerprint);
		// Whoever comes unencrypted is sent on, to this very host and nowhere else.
		const head = there('curl', '-s', '-D-', '-o', '/dev/null', `http://${ADDRESS}:${PORT}//evil.example/x?y=1`);
		expect(head).toContain(`Location: https://${ADDRESS}:${PORT}/\r\n`);
		expect(
			there(
				'curl',
				'-s',
				'-o',
				'/dev/null',
				'-w',
				'%{http_code}',
				'-H',
				'Host: evil.example',
				`http://${ADDRESS}:${PORT}/`
			)
		).toBe('403');
		for (const path of [
			'/',
			'/no-such-page',
			'/stand-in/%0d%0aX:y',
			'/stand-in//evil.example?moved',
			'/streams/open',
			'/%E0%A4%A'
		])
			expect(there('curl', '-s', '-k', '-D-', '-o', '/dev/null', `https://${ADDRESS}:${PORT}${path}`), path).toMatch(
				/^HTTP\/1\.1 (?!5)\d+[^]*x-content-type-options: nosniff[^]*/i
			);

		const browser = await chromium.launch(LAUNCH);
		const page = await browser.newPage({ ignoreHTTPSErrors: true });
		const errors: string[] = [];
		page.on('pageerror', (error) => errors.push(error.message));
		await page.goto(`https://${ADDRESS}:${PORT}/`);
		await expect(page.getByText('Bunkhouse lounge').first()).toBeVisible();
		expect(
			await page.evaluate(() => [
				isSecureContext,
				typeof crypto.randomUUID,
				typeof navigator.locks,
				typeof crypto.subtle
			])
		).toEqual([true, 'function', 'object', 'object']);
		// What the page asks of its own server is taken for its own.
		const status = await page.evaluate(
			async () =>
				(
					await fetch('/streams/open', {
						method: 'POST',
						headers: { 'content-type': 'application/json' },
						body: JSON.stringify({ url: 'http://harbour.example/harbour.aac', allowed: null })
					})
				).headers.get('x-stream') !== null
		);
		expect(status).toBe(true);
		expect(errors).toEqual([]);
		await browser.close();
	});
});
