import { readFileSync } from 'node:fs';
import { expect, open, saved, test } from './app';

test('the parts drawer: search, compare, an own copy with its own figures, and the file it goes into', async ({
	page
}) => {
	await open(page, '/parts');
	await page.getByLabel('Search the drawer').fill('usb converter khz');
	await page.getByRole('button', { name: 'Compare USB converter, 24 bit, to 96 kHz' }).click();
	await page.getByRole('button', { name: 'Compare USB converter, 32 bit, to 384 kHz' }).click();
	await page.getByRole('button', { name: 'Side by side' }).click();
	const compared = page.getByRole('region', { name: 'Side by side' });
	await expect(compared.getByRole('row', { name: /^Full scale/ })).toContainText('2.1');

	await page.getByRole('button', { name: 'Copy USB converter, 24 bit, to 96 kHz' }).click();
	const form = page.getByRole('dialog');
	await form.getByLabel('Name').first().fill('Converter from the attic');
	await form.getByLabel('Full scale (V RMS)').fill('200');
	await form.getByRole('button', { name: 'Save' }).click();
	await expect(form.getByRole('alert')).toContainText('fullScaleVrms');
	await form.getByLabel('Full scale (V RMS)').fill('1,8');
	await form.getByRole('button', { name: 'Save' }).click();
	await page.getByLabel('Search the drawer').fill('attic');
	await expect(page.getByRole('row', { name: /Converter from the attic/ })).toContainText('yours');
	await page.getByRole('button', { name: 'I have this already: Converter from the attic' }).click();

	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export your own' }).click();
	const file = readFileSync(await (await downloading).path(), 'utf8');
	expect(file).toContain('"fullScaleVrms": 1.8');
	await saved(page);
	await page.reload();
	await page.getByRole('button', { name: /^Your own/ }).click();
	await page.getByRole('button', { name: 'Change Converter from the attic' }).click();
	await page.getByRole('button', { name: 'Remove from the drawer' }).click();
	await expect(page.getByRole('row', { name: /Converter from the attic/ })).toHaveCount(0);

	// From nothing: every field and plug by form.
	await page.getByLabel('Kind of the new part').selectOption({ label: 'Fans' });
	await page.getByRole('button', { name: 'New part' }).click();
	await form.getByRole('button', { name: 'Save' }).click();
	await expect(form.getByRole('alert')).toContainText('Not saved. name');
	await form.getByLabel('Name').first().fill('Fan out of an old case');
	await form.getByLabel('More heat leaves by (×)').fill('2,5');
	await form.getByRole('group', { name: 'Plugs and sockets' }).getByRole('button', { name: 'Add' }).click();
	await form.getByLabel('Plug or socket').selectOption({ label: 'small fan socket' });
	await form.getByLabel('power', { exact: true }).check();
	await form.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByRole('row', { name: /Fan out of an old case/ })).toContainText('yours');
	await page.getByRole('button', { name: 'Change Fan out of an old case' }).click();
	await page.getByRole('button', { name: 'Remove from the drawer' }).click();
	await page.getByRole('button', { name: 'Undo', exact: true }).click();
	await expect(page.getByRole('row', { name: /Fan out of an old case/ })).toBeVisible();
	await page.keyboard.press('Control+Shift+z');

	const torn = JSON.parse(file) as { parts: Record<string, unknown>[] };
	torn.parts.push({ ...torn.parts[0], id: 'x', name: 'Case of lead', kPerW: 900 });
	await page
		.locator('input[type=file]')
		.setInputFiles({ name: 'mine.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(torn)) });
	await expect(page.getByRole('status')).toContainText(
		/2 parts taken from mine\.json\. Case of lead is refused: kPerW/
	);
	await expect(page.getByRole('row', { name: /Converter from the attic/ })).toBeVisible();
});

test('the shopping list: what is there is taken off, shipping is added, and the file says the same', async ({
	page
}) => {
	await open(page, '/shopping');
	const total = page.getByRole('row', { name: /^Together/ });
	const before = Number((await total.textContent())!.match(/[\d.]+/)![0]);
	await page.getByRole('button', { name: 'I have this already: USB converter, 24 bit, to 96 kHz' }).click();
	await expect(total).toContainText((before - 29).toFixed(2));
	await page.getByLabel('Shipping, from whom').fill('Sail maker');
	await page.getByLabel('Shipping price').fill('2,5');
	await page.getByRole('button', { name: 'Add shipping' }).click();
	await expect(total).toContainText((before - 26.5).toFixed(2));
	await page.getByLabel('Lamp-room film').uncheck();
	await expect(page.getByText(/For 5 of 6 endpoints/)).toBeVisible();
	await expect(page.getByRole('row', { name: /Resistor-ladder/ })).toHaveCount(0);
	await expect(page.getByText(/It costs .* more|It saves/)).toBeVisible();
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Download CSV' }).click();
	const csv = readFileSync(await (await downloading).path(), 'utf8');
	expect(csv).toContain('Sail maker,1,0,1,2.50,2.50,shipping\r\n');
	const shown = (await total.textContent())!.match(/[\d.]+/)![0];
	expect(csv).toContain(`total,,,,,${shown},`);
});
