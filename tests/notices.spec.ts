import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { FILM } from '../demo/facts';
import { newList, newRule } from '../src/core/onAir/when';
import type { Plan } from '../src/core/plan/plan';
import { LAUNCH } from '../scripts/chromium.mjs';
import { expect, open, test } from './app';

const CLI = resolve('build/cli/yphos.mjs');
const PAGE = 'boot/yphos/root/opt/yphos/notices/index.html';
const yphos = (args: readonly string[], input = ''): string =>
	execFileSync(process.execPath, [CLI, ...args], { encoding: 'utf8', input, maxBuffer: 1 << 26 });
const LOOKS_MS = 300;
interface Saved {
	venue: { timeZone: string };
	endpoints: {
		id: string;
		plan: { notices: { fadeMs: number; feeds: { id: string; text: string; title: string }[] } };
	}[];
}
/** The demo with a change, as a file, and the page of its ticket hatch. */
function hatchWith(change: (workshop: Saved) => void): { plan: string; page: string } {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-page-'));
	yphos(['demo', dir]);
	const plan = join(dir, 'skerrin-light.yphos.json');
	const workshop = JSON.parse(readFileSync(plan, 'utf8')) as Saved;
	change(workshop);
	writeFileSync(plan, JSON.stringify(workshop));
	yphos(['write', plan, '--endpoint', 'ticket-hatch', '--out', join(dir, 'set'), '--even-so']);
	return { plan, page: `file://${join(dir, 'set', PAGE)}` };
}

test('the page on the card shows what on-air says, at 200 instants of a year, in four zones', async () => {
	const browser = await chromium.launch(LAUNCH);
	for (const [n, zone] of ['Atlantic/Faroe', 'America/St_Johns', 'Asia/Kathmandu', 'Pacific/Auckland'].entries()) {
		const { plan, page: address } = hatchWith(({ venue }) => (venue.timeZone = zone));
		// Spread over a year, with both changes of the clock; each falls to another second.
		const instants = Array.from({ length: 50 }, (_, k) =>
			new Date(Date.UTC(2026, 10, 27) + k * 7.31 * 86_400_000 + n * 5_000_000 + k * 4321).toISOString()
		);
		const onAir = (times: readonly string[]) =>
			yphos(['on-air', plan, '--endpoint', 'ticket-hatch', '--at', '-'], times.join('\n'))
				.trim()
				.split('\n')
				.map((line) => JSON.parse(line) as { item: string; rule: string });
		const told = onAir(instants);
		// The page looks four times a second: what changes within that is not asked for.
		const soon = onAir(instants.map((at) => new Date(Date.parse(at) + LOOKS_MS).toISOString()));
		const steady = instants.map(
			(_, k) => JSON.stringify([told[k]!.item, told[k]!.rule]) === JSON.stringify([soon[k]!.item, soon[k]!.rule])
		);
		expect(steady.filter(Boolean).length).toBeGreaterThan(45);
		// The machine's own zone is another: the page goes by the venue's.
		const page = await (await browser.newContext({ timezoneId: 'Europe/Oslo' })).newPage();
		await page.clock.install({ time: Date.parse(instants[0]!) - 3_600_000 });
		await page.goto(address);
		await page.evaluate(() => document.fonts.ready);
		// From here on no time passes but what is given to it, however slow the machine.
		await page.clock.pauseAt(instants[0]!);
		for (const [k, at] of instants.entries()) {
			await page.clock.setSystemTime(at);
			await page.clock.runFor(LOOKS_MS);
			if (!steady[k]) continue;
			const shown = await page.evaluate(() => ({ ...document.documentElement.dataset }));
			expect([at, shown.item, shown.rule]).toEqual([at, told[k]!.item, told[k]!.rule]);
		}
		expect(new Set(told.map(({ item }) => item)).size).toBeGreaterThan(3);
		await page.context().close();
	}
	await browser.close();
});

test('one page fades into the next, and nothing of it is left', async () => {
	const browser = await chromium.launch(LAUNCH);
	const { page: address } = hatchWith(({ endpoints }) => {
		const { notices } = endpoints.find(({ id }) => id === 'ticket-hatch')!.plan;
		notices.fadeMs = 3000;
	});
	const page = await browser.newPage();
	await page.clock.install({ time: '2026-11-27T12:00:00Z' });
	await page.goto(address);
	await page.evaluate(() => document.fonts.ready);
	await page.clock.runFor(LOOKS_MS);
	const parts = () =>
		page.evaluate(() => [
			document.querySelectorAll('.notice-goes .notice-zone').length,
			document.querySelectorAll('.notice-stage .notice-zone').length
		]);
	expect((await parts())[0]).toBe(0);
	const first = await page.evaluate(() => document.documentElement.dataset.item);
	for (let n = 0; n < 200 && (await page.evaluate(() => document.documentElement.dataset.item)) === first; n++)
		await page.clock.runFor(LOOKS_MS);
	const [goes, stands] = await parts();
	expect(goes).toBeGreaterThan(0);
	expect(stands).toBeGreaterThan(0);
	await expect.poll(async () => (await parts())[0]).toBe(0);
	await browser.close();
});

test('what feeds and people write stays text, and nothing is asked of a network', async ({ request }) => {
	const hostile = async (path: string): Promise<string> =>
		(await request.get(`/stand-in/feeds/${path}?hostile`)).text();
	const texts: Record<string, string> = {
		ferry: await hostile('ferry.csv'),
		news: await hostile('news.xml'),
		tours: await hostile('tours.ics')
	};
	const { page: address } = hatchWith(({ endpoints }) => {
		const { notices } = endpoints.find(({ id }) => id === 'ticket-hatch')!.plan;
		for (const feed of notices.feeds) {
			feed.text = texts[feed.id] ?? feed.text;
			feed.title = '</script><script>document.title="broken"</script>';
		}
	});
	const browser = await chromium.launch(LAUNCH);
	const page = await browser.newPage();
	const asked: string[] = [];
	page.on('request', (one) => asked.push(one.url()));
	let dialogs = 0;
	page.on('dialog', (dialog) => (dialogs++, void dialog.dismiss()));
	await page.clock.install({ time: '2026-11-27T12:00:00Z' });
	await page.goto(address);
	const seen: string[] = [];
	for (let n = 0; n < 24; n++) {
		await page.clock.runFor(5000);
		seen.push(await page.locator('.notice-stage').innerText());
	}
	const all = seen.join('\n');
	expect(all).toContain('<script>document.title="broken"</script>');
	expect(all).toMatch(/onerror/);
	await expect(page).toHaveTitle('Notices');
	expect(await page.locator('script').count()).toBe(2);
	expect(dialogs).toBe(0);
	expect(asked.filter((url) => !url.startsWith('file:'))).toEqual([]);
	await browser.close();
});

test('pages are changed by keyboard and mouse, feeds fetched, and a fix makes a table legible', async ({ page }) => {
	await open(page, '/endpoint/ticket-hatch/plan/notices');
	const finding = page.getByText('\u201cFerry\u201d on \u201cTides and times\u201d cannot be read from 3.5\u2009m');
	await expect(finding).toBeVisible();
	await page.getByRole('button', { name: 'Set it to 66\u2009px, 2 rows' }).click();
	await expect(finding).toBeHidden();

	const ferry = page.getByRole('button', { name: /^Ferry, column 1, row 13, 12 by 5/ });
	await ferry.focus();
	await ferry.press('Shift+ArrowUp');
	await expect(page.getByRole('button', { name: /^Ferry, column 1, row 13, 12 by 4/ })).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(ferry).toBeVisible();

	// Its corner is dragged two columns to the left.
	const box = (await ferry.boundingBox())!;
	await ferry.click();
	await page.mouse.move(box.x + box.width - 6, box.y + box.height - 6);
	await page.mouse.down();
	await page.mouse.move(box.x + box.width - 6 - box.width / 6, box.y + box.height - 6, { steps: 5 });
	await page.mouse.up();
	await expect(page.getByRole('button', { name: /^Ferry, column 1, row 13, 10 by 5/ })).toBeVisible();

	// A feed is fetched through the app's own server; what is wrong does not take its place.
	const feeds = page.getByRole('region', { name: 'Feeds' });
	await feeds.getByText('Ferry', { exact: true }).click();
	await feeds.getByRole('button', { name: 'Fetch it here now' }).first().click();
	await expect(feeds.getByRole('status')).toContainText('Fetched, and it can be read.');
	const address = feeds.getByLabel('Address, if the endpoint is to fetch it').nth(1);
	await address.fill('http://harbour.example/feeds/ferry.csv?empty');
	await feeds.getByRole('button', { name: 'Fetch it here now' }).first().click();
	await expect(feeds.getByRole('status')).toContainText('needs a first row');
	await expect(feeds.getByText('5 rows: Leaves, For, From')).toBeVisible();

	// A page from a template stands beside the others, and the programme can show it.
	await page.getByLabel('Add a page').selectOption('Menu');
	await page.getByRole('button', { name: 'Add', exact: true }).first().click();
	await expect(page.getByRole('button', { name: /^Menu/ })).toBeVisible();
	await page.goto('/endpoint/ticket-hatch/plan/programme');
	await expect(page.getByLabel('Add an entry').first().getByRole('option', { name: 'Page: Menu' })).toHaveCount(1);
});

test('the page shows at once what is asked for by phone, and goes back to its rules', async () => {
	const { page: address } = hatchWith(() => {});
	const folder = dirname(fileURLToPath(address));
	// On the endpoint the wish lies below /run, where this test may not write.
	const wish = join(folder, 'wish');
	const program = join(folder, 'player.js');
	writeFileSync(program, readFileSync(program, 'utf8').replaceAll('/run/yphos-show/now', wish));
	writeFileSync(wish, 'none 0\n');
	const browser = await chromium.launch({ ...LAUNCH, args: [...LAUNCH.args, '--allow-file-access-from-files'] });
	const page = await browser.newPage();
	await page.goto(`${address}?feeds`);
	const shown = () => page.evaluate(() => document.documentElement.dataset.item ?? '');
	await expect.poll(shown).not.toBe('');
	for (const id of ['page-tour', 'page-tides']) {
		writeFileSync(wish, `${id} ${Math.floor(Date.now() / 1000) + 600}\n`);
		await expect.poll(shown, { timeout: 10_000 }).toBe(id);
	}
	const said = page.waitForEvent('console', (message) => message.text().startsWith('yphos-page shows'));
	writeFileSync(wish, 'none 0\n');
	await said;
	await browser.close();
});

test('text is set as it is typed, and comes back when it is undone', async ({ page }) => {
	await open(page, '/endpoint/ticket-hatch/plan/notices');
	await page.getByRole('button', { name: /^Guided tour/ }).click();
	await page.getByRole('button', { name: /^Text, column/ }).click();
	const field = page.getByRole('textbox', { name: 'Text', exact: true });
	await field.click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('Mind the ');
	await page.getByRole('button', { name: 'Bold' }).click();
	await page.keyboard.type('144 * 2');
	await page.keyboard.press('Enter');
	await page.keyboard.type('- no lift');
	const zone = page.locator('[data-zone=head]').first();
	await expect(zone.locator('strong').first()).toHaveText('144 * 2');
	await expect(zone.locator('.block.item')).toHaveText('no lift');
	await field.blur();
	for (let n = 0; n < 40 && (await zone.locator('.block.item').count()); n++) await page.keyboard.press('Control+z');
	await expect(field.locator('li')).toHaveCount(0);
});

/** The hatch's page with one list of these, all day. */
const hatchPlaying = (
	entries: readonly { location: string; durationSec: number; part: Plan['sources']['items'][number]['part'] }[]
) =>
	hatchWith((workshop) => {
		const { plan } = workshop.endpoints.find(({ id }) => id === 'ticket-hatch')! as unknown as { plan: Plan };
		const items = entries.map((entry, n) => ({ id: `own-${n}`, title: entry.location, extra: [], ...entry }));
		plan.sources.items.push(...items);
		plan.programme.lists.push({ ...newList('own', 'Own'), items: items.map(({ id }) => id) });
		const midnight = { at: 'clock', time: '00:00', offsetMin: 0 } as const;
		plan.programme.rules.unshift({ ...newRule('soft', 'own', 'Soft'), from: midnight, until: midnight, quieterDb: 6 });
	});

test('a film begins where its part does, softer by its own and the rule’s decibels', async () => {
	const part = { fromSec: 2.5, untilSec: 7, quieterDb: 6 };
	const { page: address } = hatchPlaying([{ location: FILM, durationSec: 8, part }]);
	const browser = await chromium.launch(LAUNCH);
	const page = await browser.newPage();
	await page.goto(address);
	const film = page.locator('video');
	await film.waitFor({ state: 'attached' });
	expect(await film.evaluate((video: HTMLVideoElement) => video.volume)).toBeCloseTo(10 ** (-12 / 20), 3);
	// Alone in its list: when its part is over, that begins again, and the film's own end is never reached.
	const [last, next] = await film.evaluate(
		(video: HTMLVideoElement) =>
			new Promise<[number, number]>((resolve) => {
				// What was played the browser itself knows, however seldom a busy page is asked.
				const furthest = (): number =>
					Math.max(-1, ...Array.from({ length: video.played.length }, (_, n) => video.played.end(n)));
				let before = -1;
				setInterval(() => {
					if (video.currentTime < before - 1) resolve([furthest(), video.currentTime]);
					before = video.currentTime;
				}, 20);
			})
	);
	expect(last).toBeGreaterThan(6);
	expect(last).toBeLessThan(7.9);
	expect(next).toBeGreaterThanOrEqual(2.5);
	expect(next).toBeLessThan(5);
	await browser.close();
});

test('a film that stays in sight while a sound plays is not heard with it', async () => {
	const { page: address } = hatchPlaying([
		{ location: FILM, durationSec: 8, part: { fromSec: 0, untilSec: 3, quieterDb: 0 } },
		{ location: 'Fog signal.wav', durationSec: 5, part: null }
	]);
	const browser = await chromium.launch(LAUNCH);
	const page = await browser.newPage();
	await page.goto(address);
	await page.locator('video').waitFor({ state: 'attached' });
	await page.locator('audio').waitFor({ state: 'attached' });
	const heard = await page.evaluate(() =>
		[...document.querySelectorAll<HTMLMediaElement>('video, audio')]
			.filter(({ paused }) => !paused)
			.map(({ localName }) => localName)
	);
	expect(heard).toEqual(['audio']);
	await browser.close();
});
