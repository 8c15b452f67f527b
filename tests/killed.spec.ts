import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type Page } from '@playwright/test';
import { LAUNCH } from '../scripts/chromium.mjs';

const ROUNDS = 12;
const PORT = 9417;

/** A browser of its own with a profile that stays, so that it can be killed as a crash or a flat battery would. */
async function startBrowser(profile: string): Promise<{ process: ChildProcess; page: Page }> {
	const child = spawn(
		LAUNCH.executablePath,
		[...LAUNCH.args, '--headless', `--remote-debugging-port=${PORT}`, `--user-data-dir=${profile}`, 'about:blank'],
		{ stdio: 'ignore', detached: true }
	);
	for (let tries = 0; ; tries++)
		try {
			const browser = await chromium.connectOverCDP(`http://127.0.0.1:${PORT}`);
			const context = browser.contexts()[0]!;
			return { process: child, page: context.pages()[0] ?? (await context.newPage()) };
		} catch (error) {
			if (tries > 60) throw error;
			await new Promise((done) => setTimeout(done, 250));
		}
}

test(`killed ${ROUNDS} times while somebody types, the browser has lost the last key at most`, async ({ baseURL }) => {
	test.setTimeout(600_000);
	const profile = mkdtempSync(join(tmpdir(), 'yphos-killed-'));
	const lost: number[] = [];
	try {
		for (let round = 1; round <= ROUNDS; round++) {
			const typed = `Loft ${round} ${'abcdefghijklmnopqrstuvwxyz'.slice(0, 4 + ((round * 7) % 20))}`;
			const first = await startBrowser(profile);
			await first.page.goto(`${baseURL}/endpoint/bunkhouse-lounge/plan/brief`);
			const name = first.page.getByLabel('Name', { exact: true });
			await name.fill('');
			await name.fill('Loft');
			await name.focus();
			await first.page.keyboard.press('End');
			await first.page.keyboard.type(typed.slice(4), { delay: 45 });
			await new Promise((done) => setTimeout(done, (round * 13) % 60));
			process.kill(-first.process.pid!, 'SIGKILL');
			await new Promise((done) => setTimeout(done, 400));
			const second = await startBrowser(profile);
			await second.page.goto(`${baseURL}/endpoint/bunkhouse-lounge/plan/brief`);
			const kept = await second.page.getByLabel('Name', { exact: true }).inputValue();
			expect(typed.startsWith(kept), `${kept} of ${typed}`).toBe(true);
			lost.push(typed.length - kept.length);
			process.kill(-second.process.pid!, 'SIGKILL');
			await new Promise((done) => setTimeout(done, 300));
		}
	} finally {
		rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
	}
	console.log(`keys lost in ${ROUNDS} kills: ${lost.join(' ')}`);
	expect(Math.max(...lost), lost.join(' ')).toBeLessThanOrEqual(1);
});

test('reloaded at once after a change, the change is there', async ({ page }) => {
	const lost: number[] = [];
	for (let round = 0; round < 25; round++) {
		await page.goto('/endpoint/bunkhouse-lounge/plan/brief');
		const name = page.getByLabel('Name', { exact: true });
		await name.fill(`Loft ${round}`);
		await page.waitForTimeout(round * 6);
		await page.reload();
		if ((await page.getByLabel('Name', { exact: true }).inputValue()) !== `Loft ${round}`) lost.push(round * 6);
	}
	console.log(`changes lost in 25 reloads, by ms waited: ${lost.join(' ') || 'none'}`);
	expect(lost).toEqual([]);
});
