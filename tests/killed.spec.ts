import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type Page } from '@playwright/test';
import { LAUNCH } from '../scripts/chromium.mjs';

/** `npm run fuzz` kills more often. */
const ROUNDS = Number(process.env.KILLS ?? 5);
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

/** Its profile is locked until it is gone. */
async function gone(child: ChildProcess): Promise<void> {
	if (child.exitCode === null && child.signalCode === null) await new Promise((done) => child.once('exit', done));
	// Its own children follow it a moment later.
	await new Promise((done) => setTimeout(done, 400));
}

/** Writes down, in the page, how long the name was whenever the page said that it is saved. */
const watchSaved = (): void => {
	const name = document.querySelector<HTMLInputElement>('input:focus')!;
	const state = [...document.querySelectorAll('p[aria-live]')].find((one) =>
		/^(Saved|Not saved)/.test(one.textContent!)
	)!;
	const seen = { saved: '' };
	const look = (): void => {
		if (state.textContent!.startsWith('Saved')) seen.saved = name.value;
	};
	new MutationObserver(look).observe(state, { childList: true, characterData: true, subtree: true });
	Object.assign(globalThis, { seen });
};

test(`killed ${ROUNDS} times while somebody types, the browser has all that it said was saved`, async ({ baseURL }) => {
	test.setTimeout(600_000);
	const profile = mkdtempSync(join(tmpdir(), 'yphos-killed-'));
	const lost: number[] = [];
	let wasSavedOnTheWay = 0;
	try {
		for (let round = 1; round <= ROUNDS; round++) {
			const typed = `Loft ${round} ${'abcdefghijklmnopqrstuvwxyz'.slice(0, 4 + ((round * 7) % 20))}`;
			const first = await startBrowser(profile);
			await first.page.goto(`${baseURL}/endpoint/bunkhouse-lounge/plan/brief`);
			const name = first.page.getByLabel('Name', { exact: true });
			await name.fill('');
			await name.fill('Loft');
			await name.focus();
			await first.page.evaluate(watchSaved);
			await first.page.keyboard.press('End');
			// Once for longer than a browser waits before it puts notes on its disk: what it then has there is old.
			await first.page.keyboard.type(typed.slice(4), { delay: round === 1 ? 600 : 45 });
			await new Promise((done) => setTimeout(done, (round * 13) % 60));
			const saved = await first.page.evaluate(() => (globalThis as unknown as { seen: { saved: string } }).seen.saved);
			process.kill(-first.process.pid!, 'SIGKILL');
			await gone(first.process);
			const second = await startBrowser(profile);
			await second.page.goto(`${baseURL}/endpoint/bunkhouse-lounge/plan/brief`);
			const kept = await second.page.getByLabel('Name', { exact: true }).inputValue();
			await expect(second.page.getByText('kept aside')).toHaveCount(0);
			expect(typed.startsWith(kept), `${kept} of ${typed}`).toBe(true);
			expect(kept.length, `${kept} of ${typed}, when ${saved} was said to be saved`).toBeGreaterThanOrEqual(
				saved.length
			);
			if (saved.length > 'Loft'.length) wasSavedOnTheWay++;
			lost.push(typed.length - kept.length);
			process.kill(-second.process.pid!, 'SIGKILL');
			await gone(second.process);
		}
	} finally {
		rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
	}
	// How many that are is the machine's pace as well as ours: told, not judged.
	console.log(`keys lost in ${ROUNDS} kills: ${lost.join(' ')}`);
	expect(wasSavedOnTheWay).toBeGreaterThan(ROUNDS / 2);
});

test('reloaded at once after a change, the change is there', async ({ page }) => {
	const lost: number[] = [];
	for (let round = 0; round < 12; round++) {
		await page.goto('/endpoint/bunkhouse-lounge/plan/brief');
		const name = page.getByLabel('Name', { exact: true });
		await name.fill(`Loft ${round}`);
		await page.waitForTimeout(round * 12);
		await page.reload();
		if ((await page.getByLabel('Name', { exact: true }).inputValue()) !== `Loft ${round}`) lost.push(round * 12);
	}
	console.log(`changes lost in 12 reloads, by ms waited: ${lost.join(' ') || 'none'}`);
	expect(lost).toEqual([]);
});
