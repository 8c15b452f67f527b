import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
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

test('a damaged store is opened as far as it can be, and the damaged part can be downloaded', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/brief');
	await rename(page, 'Loft lounge');
	await saved(page);
	await page.evaluate(async () => {
		const opened = indexedDB.open('yphos');
		await new Promise((done) => (opened.onsuccess = done));
		const objects = opened.result.transaction('workshop', 'readwrite').objectStore('workshop');
		const got = objects.get('workshop');
		await new Promise((done) => (got.onsuccess = done));
		got.result.workshop.endpoints[1].plan.sound = 'torn';
		const put = objects.put(got.result, 'workshop');
		await new Promise((done) => (put.onsuccess = done));
	});
	await page.goto('/');
	await expect(page.getByText('One part of the saved workshop could not be understood.')).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Loft lounge' })).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Fog-horn room' })).toHaveCount(0);
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Download what was kept' }).click();
	expect(readFileSync(await (await downloading).path(), 'utf8')).toContain('"sound": "torn"');
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
			.locator('input[type=file]')
			.setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });
	await put('broken.yphos.json', text.slice(0, 500));
	await expect(page.getByRole('status')).toContainText('not readable as JSON');
	await page.getByRole('button', { name: 'Begin an empty one' }).click();
	await expect(page.getByRole('navigation', { name: 'Shelf' })).not.toContainText('Bunkhouse lounge');
	await put('skerrin-light.yphos.json', text);
	await expect(page.getByRole('navigation', { name: 'Shelf' })).toContainText('Bunkhouse lounge');
});

const VIEWS = [
	'/',
	'/venue',
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
			const { violations } = await new AxeBuilder({ page }).analyze();
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
