import { createPublicKey, createVerify, generateKeyPairSync } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { expect, open, test } from './app';

test('content is signed with a key made here, packed and downloaded; another key is refused', async ({ page }) => {
	await open(page, '/endpoint/ticket-hatch/plan/delivery');
	const made = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Make a signing key' }).click();
	const keyFile = await (await made).path();
	await expect(page.getByText('Anybody on the way can put up')).toHaveCount(0);
	await expect(page.getByRole('button', { name: 'Pack and download' })).toBeDisabled();

	const chooser = page.waitForEvent('filechooser');
	await page.getByText('Choose your signing key').click();
	await (
		await chooser
	).setFiles({ name: 'own.pem', mimeType: 'application/x-pem-file', buffer: readFileSync(keyFile) });
	const packed = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Pack and download' }).click();
	const download = await packed;
	expect(download.suggestedFilename()).toBe('ticket-hatch-content.zip');
	const files = unzipSync(readFileSync(await download.path()));
	const names = Object.keys(files);
	expect(names.at(-1)).toBe('manifest.txt');
	const manifest = Buffer.from(files['manifest.txt']!);
	const listed = [...manifest.toString().matchAll(/^file ([0-9a-f]{64}) (\d+) (.+)$/gm)];
	expect(listed.map((row) => row[3])).toContain('notices/index.html');
	for (const [, digest, bytes] of listed) expect(files[`files/${digest}`]).toHaveLength(Number(bytes));

	const publicKey = createPublicKey(readFileSync(keyFile));
	expect(createVerify('SHA256').update(manifest).verify(publicKey, files['manifest.txt.sig']!)).toBe(true);

	const { privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
	const again = page.waitForEvent('filechooser');
	await page.getByText('Choose your signing key').click();
	const other = Buffer.from(privateKey.export({ type: 'pkcs8', format: 'pem' }));
	await (await again).setFiles({ name: 'other.pem', mimeType: 'application/x-pem-file', buffer: other });
	await page.getByRole('button', { name: 'Pack and download' }).click();
	await expect(page.getByRole('alert')).toContainText('This is another key');
});
