import { readFileSync } from 'node:fs';
import { vicTiming } from '../src/core/standards/vicTable';
import { writeEdid } from '../src/core/formats/edid';
import { expect, open, saved, test } from './app';

const set = writeEdid({
	name: 'WALL SET',
	widthMm: 890,
	heightMm: 500,
	modes: [31, 19].map((vic) => vicTiming(vic)!.timing),
	sound: null,
	year: 2019
});
const bytes = Buffer.from(set.ok ? set.value : []);

test('picture: an EDID is read, a mode chosen, and both reach kernel and player', async ({ page }) => {
	await open(page, '/endpoint/ticket-hatch/plan/picture');
	await page.getByRole('button', { name: 'Read EDID' }).click();
	await page.getByLabel('Paste it here').fill('this is no screen');
	await expect(page.getByText(/No EDID was found in it/)).toBeVisible();
	await page.getByLabel('Paste it here').fill(`HDMI-A-2\n${bytes.toString('hex').replace(/../g, '$& ')}`);
	await expect(page.getByText(/on HDMI-A-2/)).toBeVisible();
	await page.getByRole('button', { name: 'Take it in' }).click();
	await expect(page.getByLabel('Connector')).toHaveValue('HDMI-A-2');
	await expect(page.getByRole('button', { name: '1280 × 720' }).first()).toBeVisible();
	await page.getByRole('button', { name: '1280 × 720' }).first().click();
	await saved(page);
	await page.goto('/endpoint/ticket-hatch/files');
	await page.getByText('mpv.conf', { exact: true }).click();
	await expect(page.getByText('drm-mode=1280x720@50.00')).toBeVisible();
});

test('edges: read on a phone, questioned where they cannot be, proved by the second card', async ({ page }) => {
	await open(page, '/endpoint/ticket-hatch/edges');
	await page.setViewportSize({ width: 360, height: 780 });
	await page.getByLabel('Left: one more').click();
	await expect(page.getByLabel('Left', { exact: true })).toHaveValue('49');
	await page.getByLabel('Top', { exact: true }).fill('540');
	await page.keyboard.press('Tab');
	await expect(page.getByText(/Is a digit too many/)).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(page.getByText('The shape stays true')).toBeVisible();
	await page.getByRole('button', { name: 'Show the second card' }).click();
	await expect(page.getByRole('dialog', { name: 'Proof of the edges' })).toBeVisible();
	await page.keyboard.press('r');
	await page.keyboard.press('ArrowLeft');
	await page.keyboard.press('Escape');
	await expect(page.getByLabel('Right', { exact: true })).toHaveValue('45');
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'PNG' }).first().click();
	const png = readFileSync(await (await downloading).path());
	expect(png.subarray(16, 24).toString('hex')).toBe('0000078000000438');
});

test('rehearsal: the stage shows the set, and a screen that is off at the start', async ({ page }) => {
	await open(page, '/endpoint/ticket-hatch/rehearsal');
	await expect(page.getByText(/Picture after .* whole and upright/)).toBeVisible();
	await page.getByRole('button', { name: 'Screen off at the start' }).click();
	await expect(page.getByText(/switched on by force/)).toBeVisible();
	await page.getByLabel(/Practise/).check();
	await expect(page.getByRole('img', { name: /the card with the numbered edges/ })).toBeVisible();
});
