import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { expect, open, test } from './app';

test('a week shows what is on and why, a rule is moved by the keyboard and taken back, and leaves as a calendar', async ({
	page
}) => {
	await open(page, '/');
	await page.getByRole('link', { name: 'Week', exact: true }).click();
	await expect(page.getByRole('heading', { name: 'Week' })).toBeVisible();

	// What is on at an instant, and the rule that says so.
	await page.getByLabel(/Day and time in/).fill('2026-11-27T16:45');
	const hatch = page.getByRole('row', { name: /Ticket hatch/ });
	await expect(hatch).toContainText('Ferry and steps');
	await expect(hatch).toContainText('rule: Before the ferry');

	// A year is worked out beside, and finds the rule that never has its turn.
	const never = page.getByLabel('What never comes in a year');
	await expect(never).toContainText('\u201cGuided tour\u201d is never on');

	await never.getByRole('button', { name: 'Move it to Wednesdays' }).click();
	await expect(never).toContainText('every rule has its turn');
	await page.keyboard.press('Control+z');

	// Moved a quarter of an hour later, on all its days.
	const bar = page.getByRole('button', { name: /16:30 to 17:20: Ferry and steps/ }).first();
	await bar.focus();
	await bar.press('ArrowRight');
	await expect(page.getByRole('button', { name: /16:45 to 17:35: Ferry and steps/ }).first()).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(page.getByRole('button', { name: /16:30 to 17:20: Ferry and steps/ }).first()).toBeVisible();

	// Its end is dragged.
	const grip = page.getByRole('button', { name: /16:30 to 17:20: Ferry and steps/ }).first();
	await page.getByRole('button', { name: 'Day', exact: true }).click();
	for (let tries = 0; tries < 7 && !(await grip.isVisible()); tries++)
		await page.getByRole('button', { name: 'Later' }).click();
	const box = (await grip.boundingBox())!;
	const lane = (await grip.locator('..').boundingBox())!;
	await page.mouse.move(box.x + box.width - 3, box.y + 10);
	await page.mouse.down();
	await page.mouse.move(box.x + box.width - 3 + (lane.width / 1440) * 30, box.y + 10, { steps: 4 });
	await page.mouse.up();
	await expect(page.getByRole('button', { name: /16:30 to 17:50: Ferry and steps/ })).toBeVisible();

	const download = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export as iCalendar' }).click();
	expect((await download).suggestedFilename()).toMatch(/\.ics$/);
	const packed = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export as SMIL' }).click();
	const files = unzipSync(readFileSync(await (await packed).path()));
	expect(Object.keys(files)).toContain('ticket-hatch.smil');
	expect(Buffer.from(files['ticket-hatch.smil']!).toString()).toContain('<img src="media/');
	const listed = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export as playlists' }).click();
	const lists = unzipSync(readFileSync(await (await listed).path()));
	expect(Object.keys(lists)).toContain('ticket-hatch/systemd/part-ferry.timer');
});

test('a rule is made, ranked and cured in the programme, and the venue brings its opening hours', async ({ page }) => {
	await open(page, '/endpoint/lamp-room/plan/programme');
	await page.getByRole('button', { name: 'Add a rule' }).click();
	const rule = page.getByRole('region', { name: 'Rule 1: New rule' });
	await rule.getByRole('textbox', { name: 'Called' }).fill('While open');
	await page.getByRole('group', { name: 'From' }).getByRole('combobox').selectOption('opens');
	await page.getByRole('group', { name: 'Until' }).getByRole('combobox').selectOption('closes');
	await expect(page.getByLabel('While no rule holds')).toHaveValue('rest');
	await expect(
		page.getByRole('button', { name: /^While open shows Lens and lamp · every day · opening to closing/ })
	).toBeVisible();
	await expect(page.getByRole('img', { name: /What is on in the week/ })).toContainText('Lens and lamp');

	// Without opening hours it can never hold: one press gives it hours of its own.
	await page.goto('/venue');
	for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Take out' }).first().click();
	await page.goto('/endpoint/lamp-room/plan/programme');
	await expect(page.getByText('goes by opening hours, and the venue has none').first()).toBeVisible();
	await page.getByRole('button', { name: 'From 09:00 to 17:00' }).first().click();
	await expect(page.getByText('shows Lens and lamp · every day · 09:00 to 17:00')).toBeVisible();
});
