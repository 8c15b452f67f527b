import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { writeTone } from '../src/core/formats/wav/wav';
import { expect, open, saved, test } from './app';

const rename = async (page: Page, name: string): Promise<void> => page.getByLabel('Name', { exact: true }).fill(name);

test('two tabs: the idle one follows, and a clash is asked about and loses nothing', async ({ page, context }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/brief');
	const other = await context.newPage();
	await open(other, '/endpoint/bunkhouse-lounge/plan/brief');
	await rename(page, 'Loft lounge');
	await saved(page);
	await expect(other.getByRole('heading', { level: 1 })).toHaveText('Loft lounge');

	// A clash: the other tab saves while this one has not heard of it.
	await page.evaluate(() => {
		BroadcastChannel.prototype.postMessage = () => {};
	});
	await rename(page, 'Mine');
	await saved(page);
	await rename(other, 'Theirs');
	await expect(other.getByText('Another tab has changed the workshop.')).toBeVisible();
	await other
		.getByRole('button', { name: 'Take the other\u2019s' })
		.or(other.getByRole('button', { name: "Take the other's" }))
		.click();
	await expect(other.getByRole('heading', { level: 1 })).toHaveText('Mine');
});

/** Changes the record in which the browser keeps the workshop, as damage or another version would. */
const editStored = (page: Page, edit: string): Promise<void> =>
	page.evaluate(async (source) => {
		const opened = indexedDB.open('yphos');
		await new Promise((done) => (opened.onsuccess = done));
		const objects = opened.result.transaction('workshop', 'readwrite').objectStore('workshop');
		const recordOf = async (key: string) => {
			const got = objects.get(key);
			await new Promise((done) => (got.onsuccess = done));
			return got.result;
		};
		const steps = JSON.parse(source) as { at: (string | number)[]; to: unknown };
		let key = 'workshop';
		let record = await recordOf(key);
		let there = record;
		for (const step of steps.at.slice(0, -1)) {
			there = there[step];
			// An endpoint is a record of its own.
			if (typeof there.stored === 'string') {
				key = there.stored;
				there = record = await recordOf(key);
			}
		}
		there[steps.at.at(-1)!] = steps.to;
		const put = objects.put(record, key);
		await new Promise((done) => (put.onsuccess = done));
		opened.result.close();
	}, edit);
const storedVersion = (page: Page): Promise<number> =>
	page.evaluate(async () => {
		const opened = indexedDB.open('yphos');
		await new Promise((done) => (opened.onsuccess = done));
		const got = opened.result.transaction('workshop').objectStore('workshop').get('workshop');
		await new Promise((done) => (got.onsuccess = done));
		opened.result.close();
		return got.result.workshop.version as number;
	});

test('a damaged store waits for a decision; mended, it is all there, and what was damaged can be downloaded and opened again', async ({
	page
}) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/brief');
	await rename(page, 'Loft lounge');
	await saved(page);
	await editStored(page, JSON.stringify({ at: ['workshop', 'endpoints', 1, 'plan', 'sound'], to: 'torn' }));
	await page.goto('/');
	await expect(page.getByRole('heading', { name: 'Part of the saved workshop cannot be understood' })).toBeVisible();
	await expect(page.getByText('Fog-horn room endpoints[1]: plan.sound')).toBeVisible();
	expect((await new AxeBuilder({ page }).analyze()).violations.map(({ id }) => id)).toEqual([]);
	const stored = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Download what is stored' }).click();
	expect(readFileSync(await (await stored).path(), 'utf8')).toContain('"sound": "torn"');
	await page.getByRole('button', { name: 'Open without the damaged parts' }).click();
	await page.getByRole('button', { name: 'Yes, do that' }).click();
	await expect(page.getByRole('heading', { name: 'Loft lounge' })).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Fog-horn room' })).toHaveCount(0);
	await saved(page);

	await page.getByRole('link', { name: 'See what is kept aside' }).click();
	const kept = page.getByRole('region', { name: 'Kept aside' });
	expect((await new AxeBuilder({ page }).analyze()).violations.map(({ id }) => id)).toEqual([]);
	const downloading = page.waitForEvent('download');
	await kept.getByRole('button', { name: 'Download' }).click();
	expect(readFileSync(await (await downloading).path(), 'utf8')).toContain('"sound": "torn"');
	await kept.getByRole('button', { name: 'Open again' }).click();
	await expect(kept.getByRole('status')).toContainText('It is open again. Changed on the way: plan.sound');
	await expect(page.getByRole('navigation', { name: 'Shelf' })).toContainText('Fog-horn room');
	await kept.getByRole('button', { name: 'Forget it' }).click();
	await kept.getByRole('button', { name: 'Delete it for good' }).click();
	await expect(kept).toHaveCount(0);
});

test('a store that a newer Yphos wrote is left alone, by an old tab too, and reloading is offered', async ({
	page,
	context
}) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/brief');
	await rename(page, 'Loft lounge');
	await saved(page);
	await editStored(page, JSON.stringify({ at: ['workshop', 'version'], to: 99 }));
	await rename(page, 'Written by the old tab');
	await expect(page.getByRole('heading', { name: 'A newer Yphos has saved this workshop' })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Download what this tab has' })).toBeVisible();
	const fresh = await context.newPage();
	await fresh.goto('/');
	await expect(fresh.getByRole('button', { name: 'Reload for the newer version' })).toBeVisible();
	await expect(fresh.getByRole('button', { name: /Start/ })).toHaveCount(0);
	expect(await storedVersion(page)).toBe(99);
});

test('an ordinary playlist and an odd probe report are kept within bounds, and are all there after a reload', async ({
	page
}) => {
	await open(page, '/endpoint/lamp-room/plan/sources');
	const take = (name: string, text: string) =>
		page
			.locator('input[type=file][accept*=m3u]')
			.setInputFiles({ name, mimeType: 'audio/x-mpegurl', buffer: Buffer.from(text) });
	await take(
		'click.m3u',
		`#EXTM3U\n# a\ttab\n#EXTINF:0.4,Click\nhttp://a.example/x\n#EXTINF:1,${'T'.repeat(301)}\nhttp://a.example/y\nhttp://a.example/${'z'.repeat(2001)}\n`
	);
	await expect(page.getByText('click.m3u: 2 entries, M3U.')).toBeVisible();
	await expect(page.getByText('Entry 3 was left out: its address has 2018 characters')).toBeVisible();
	await saved(page);
	await page.goto('/endpoint/lamp-room/plan/parts');
	await page.getByRole('button', { name: 'Paste what your board printed' }).click();
	const report = [
		'=== aplay -l ===\ncard 0: Set [USB Set], device 0: USB Audio [USB Audio]',
		"=== amixer -c 0 ===\nSimple mixer control 'PCM',0\n  Capabilities: pvolume\nSimple mixer control 'PCM',1\n  Capabilities: pvolume",
		'=== lsblk -J -b ===\n{"blockdevices":[{"name":"sda","size":"x","type":"disk"},{"name":"sdb","size":5,"type":"disk"},{"name":"sdb","size":5,"type":"disk"}]}',
		'=== cat /sys/class/drm/card0-HDMI-A-1/status ===\nconnected\n=== cat /sys/class/drm/card1-HDMI-A-1/status ===\ndisconnected'
	].join('\n');
	await page.getByLabel('Paste it here').fill(report);
	await expect(page.getByText('1 things were left out, because they cannot be')).toBeVisible();
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(page.getByText('HDMI-A-1: empty')).toBeVisible();
	await saved(page);
	await page.reload();
	await expect(page.getByText('HDMI-A-1: empty')).toBeVisible();
	await page.goto('/endpoint/lamp-room/plan/sound');
	await expect(page.getByRole('region', { name: 'Sound: settings' })).toBeVisible();
	await page.goto('/endpoint/lamp-room/plan/sources');
	await expect(page.getByText('http://a.example/x')).toBeVisible();

	// Two endpoints of one name, and what lists them both.
	for (const id of ['test-bench', 'fog-horn-room']) {
		await page.goto(`/endpoint/${id}/plan/brief`);
		await rename(page, 'Twin');
		await saved(page);
	}
	await page.goto('/shopping');
	await expect(page.getByRole('row', { name: /^Twin [\d.]+/ })).toHaveCount(2);
});

test('a workshop with its media goes to another browser and back; what did not come along is missed, and known again under another name', async ({
	page,
	browser
}) => {
	const tone = Buffer.from(
		writeTone({ pitchHz: 330, peakDbfs: -20, sampleRateHz: 48_000, bitDepth: 16, channels: 2, durationMs: 100 })
	);
	const audio = (name: string) => ({ name, mimeType: 'audio/wav', buffer: tone });
	const list = '/endpoint/test-bench/plan/sources';
	await open(page, list);
	await page.locator('input[type=file][accept*=audio]').setInputFiles(audio('Gull.wav'));
	await expect(page.getByText('1 file added.')).toBeVisible();
	await saved(page);
	await page.goto('/venue');
	const plain = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export the workshop' }).click();
	const withoutMedia = readFileSync(await (await plain).path());
	const packed = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export with media' }).click();
	const withMedia = readFileSync(await (await packed).path());
	await expect(page.getByRole('status')).toContainText('1 media file is in it.');

	const other = await (await browser.newContext()).newPage();
	const bring = async (name: string, buffer: Buffer): Promise<void> => {
		await open(other, '/venue');
		await other
			.locator('input[type=file][accept*=json]')
			.setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
		await other.getByRole('dialog').getByRole('button', { name: 'Open it' }).click();
		await saved(other);
		await other.goto(list);
	};
	await bring('mine.yphos.json', withoutMedia);
	await expect(other.getByRole('heading', { name: 'One file of the list is not here' })).toBeVisible();
	await expect(other.getByText('not here: add it again')).toBeVisible();
	await other.locator('input[type=file][accept*=audio]').setInputFiles(audio('something else.wav'));
	await expect(other.getByRole('heading', { name: 'One file of the list is not here' })).toHaveCount(0);
	await expect(other.getByLabel('Title of entry 2')).toHaveValue('Gull');

	const third = await (await browser.newContext()).newPage();
	await open(third, '/venue');
	await third
		.locator('input[type=file][accept*=json]')
		.setInputFiles({ name: 'mine.zip', mimeType: 'application/zip', buffer: withMedia });
	await third.getByRole('dialog').getByRole('button', { name: 'Open it' }).click();
	await saved(third);
	await third.goto(list);
	await expect(third.getByLabel('Title of entry 2')).toHaveValue('Gull');
	await expect(third.getByRole('heading', { name: /not here/ })).toHaveCount(0);
});

test('export and import give the same workshop; a wrong file changes nothing and says why', async ({ page }) => {
	await open(page, '/venue');
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export the workshop' }).click();
	const download = await downloading;
	expect(download.suggestedFilename()).toBe('skerrin-light.yphos.json');
	const text = readFileSync(await download.path(), 'utf8');
	const put = (name: string, content: string) =>
		page
			.locator('input[type=file][accept*=json]')
			.setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });
	await put('broken.yphos.json', text.slice(0, 500));
	await expect(page.getByRole('status')).toContainText('not readable as JSON');
	await page.getByRole('button', { name: 'Start your own workshop' }).click();
	const dialog = page.getByRole('dialog');
	await expect(dialog.getByRole('button', { name: 'Start', exact: true })).toBeDisabled();
	await dialog.getByLabel('What it is called').fill('Old mill');
	await dialog.getByLabel('Time zone').fill('Europe/Nowhere');
	await expect(dialog.getByText(/A time zone of the tz database/)).toBeVisible();
	await dialog.getByLabel('Time zone').fill('Europe/Oslo');
	await dialog.getByRole('button', { name: 'Start', exact: true }).click();
	await expect(page.getByText('Old mill begins').first()).toBeVisible();
	await expect(page.getByRole('navigation', { name: 'Shelf' })).not.toContainText('Bunkhouse lounge');
	// Nothing is replaced before it was asked, and one press brings back what was there.
	await put('skerrin-light.yphos.json', text);
	await expect(page.getByText(/takes the place of Old mill \(0 endpoints/)).toBeVisible();
	await page.getByRole('dialog').getByRole('button', { name: 'Open it' }).click();
	await expect(page.getByRole('navigation', { name: 'Shelf' })).toContainText('Bunkhouse lounge');
	await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByRole('navigation', { name: 'Shelf' })).toContainText('Old mill');
});

const VIEWS = [
	'/',
	'/venue',
	'/week',
	'/endpoint/ticket-hatch/plan/programme',
	'/endpoint/ticket-hatch/plan/notices',
	'/parts?kind=converter',
	'/shopping',
	'/endpoint/lamp-room/plan/header',
	'/endpoint/lamp-room/plan/heat',
	...['brief', 'parts', 'power', 'card', 'network', 'sources', 'sound', 'programme'].map(
		(link) => `/endpoint/fog-horn-room/plan/${link}`
	),
	'/endpoint/bunkhouse-lounge/write-card',
	'/endpoint/bunkhouse-lounge/files',
	'/endpoint/bunkhouse-lounge/rehearsal',
	'/endpoint/bunkhouse-lounge/run-sheet'
];

for (const theme of ['day', 'lamp'])
	test(`nothing an automated checker finds stands in the way of anybody, by ${theme}`, async ({ page }) => {
		test.slow();
		await page.emulateMedia({ colorScheme: theme === 'lamp' ? 'dark' : 'light' });
		const found: string[] = [];
		for (const view of VIEWS) {
			await open(page, view);
			const checker = new AxeBuilder({ page }).options({ preload: false });
			// By lamp only the colours are others.
			if (theme === 'lamp') checker.withRules('color-contrast');
			const { violations } = await checker.analyze();
			found.push(...violations.map((v) => `${view} ${v.id}: ${v.nodes[0]?.html}`));
		}
		expect(found).toEqual([]);
	});

test('at 360 px nothing is wider than the screen', async ({ page }) => {
	await page.setViewportSize({ width: 360, height: 740 });
	for (const view of VIEWS) {
		await page.goto(view);
		await expect(page.getByRole('heading').first()).toBeVisible();
		const moment = page.getByRole('slider', { name: 'Moment of the rehearsal' });
		if (await moment.isVisible()) {
			await moment.focus();
			await page.keyboard.press('End');
		}
		expect(
			await page.evaluate(() =>
				Math.max(
					document.documentElement.scrollWidth,
					...[...document.querySelectorAll('section, article, table')].map((part) => part.getBoundingClientRect().right)
				)
			),
			view
		).toBeLessThanOrEqual(360);
	}
});

test('the keyboard reaches everything: palette, shortcuts, pairs of keys', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/sound');
	await page.keyboard.press('?');
	await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toContainText('g f');
	await page.keyboard.press('Escape');
	await page.keyboard.press('g');
	await page.keyboard.press('r');
	await expect(page.locator('[data-verdict]')).toBeVisible();
	await page.keyboard.press('Control+k');
	await page.getByLabel('Find anything').last().fill('go fog');
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Fog-horn room');
});
