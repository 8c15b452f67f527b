import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { unzipSync } from 'fflate';
import { expect, open, probeReport, root, saved, test } from './app';

const conformance = resolve(root, '..', 'shared', 'conformance', 'check-card.sh');

test('from a board\u2019s own listing and a playlist to a proven card set', async ({ page }) => {
	await open(page, '/');
	await page
		.getByRole('banner')
		.getByRole('button', { name: 'New endpoint' })
		.or(page.getByRole('button', { name: 'New endpoint' }).first())
		.first()
		.click();
	await page.getByLabel('Name', { exact: true }).fill('Net loft "upstairs" 100% #1');

	const chain = page.getByRole('navigation', { name: 'The chain' });
	await chain.getByText('Parts', { exact: true }).click();
	for (const fix of [
		'Use Full-size board, 2 GB, two micro HDMI ports',
		'Use Supply 5.1 V, 3 A, fixed USB-C cable',
		'Use Memory card 16 GB, class 10',
		'Use USB converter, 16 bit, 48 kHz only'
	])
		await page.getByRole('button', { name: fix }).click();
	await page.getByRole('button', { name: 'Paste what your board printed' }).click();
	await page.getByLabel('Paste it here').fill(probeReport.replace(/\n/g, '\r\n'));
	await expect(page.getByText('48 kHz, S16_LE')).toBeVisible();
	await page.getByRole('button', { name: 'Take it in' }).click();

	await chain.getByText('Sources', { exact: true }).click();
	const list =
		'#EXTM3U\n#PLAYLIST:Evening\n#EXTINF:4,Bell, in A; "quoted" %n \\ $HOME\nHarbour bell in A.wav\n#EXTINF:-1,Harbour Radio\nhttp://radio.skerrin.example:8000/harbour\n';
	await page
		.locator('input[type=file][accept*=m3u]')
		.setInputFiles({ name: 'evening.m3u8', mimeType: 'audio/x-mpegurl', buffer: Buffer.from(`\ufeff${list}`) });
	await expect(page.getByText('evening.m3u8: 2 entries, M3U.')).toBeVisible();
	await page.getByRole('button', { name: 'Begin at once' }).click();

	await chain.getByText('Sound', { exact: true }).click();
	await expect(page.getByText('not ready to write')).toBeVisible();
	await page.getByRole('button', { name: 'Use Field24' }).click();
	await expect(page.getByText('ready to write', { exact: false })).not.toContainText('not ready');
	await expect(page.getByText('hw:CARD=Field24,DEV=0')).toBeVisible();

	await page.getByRole('link', { name: 'Rehearsal' }).click();
	await expect(page.locator('[data-verdict]')).toContainText(
		/Sound after \d+\.\d\ss: 48\skHz, 16 bit, resampled from 44.1\skHz/
	);
	await page.getByRole('button', { name: 'Cut the power' }).click();
	await expect(
		page.getByText(/Cut the power at .*: nothing is heard for .*, then it comes back by itself/)
	).toBeVisible();

	await page.getByRole('button', { name: 'Download card set' }).click();
	const password = page.getByLabel(/^Password for keeper/);
	const again = page.getByLabel('The same password once more');
	await password.fill('password1');
	await again.fill('password1');
	await page.getByRole('button', { name: 'Download the set' }).click();
	await expect(page.getByText(/tried first/)).toBeVisible();
	await password.fill('three gulls in a row');
	await expect(page.getByText(/bits for a guesser/)).toBeVisible();
	await page.getByRole('button', { name: 'Download the set' }).click();
	await expect(page.getByText(/The two are not the same/)).toBeVisible();
	await again.fill('three gulls in a row');
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Download the set' }).click();
	const zip = await (await downloading).path();
	const dir = mkdtempSync(join(tmpdir(), 'yphos-e2e-'));
	execFileSync('python3', [
		'-c',
		'import os,sys,zipfile\nz=zipfile.ZipFile(sys.argv[1])\nfor i in z.infolist():\n  p=z.extract(i,sys.argv[2]); os.chmod(p,(i.external_attr>>16)&0o777)',
		zip,
		dir
	]);
	expect(statSync(join(dir, 'boot/yphos/apply.sh')).mode & 0o777).toBe(0o755);
	expect(readFileSync(join(dir, 'boot/yphos/root/opt/yphos/playlist.m3u8'), 'utf8')).toContain(
		'#EXTINF:4,Bell, in A; "quoted" %n \\ $HOME\n'
	);
	expect(readFileSync(join(dir, 'boot/yphos/root/etc/systemd/system/yphos-player.service'), 'utf8')).toContain(
		'Description=Plays for Net loft "upstairs" 100%% #1\n'
	);
	if (existsSync(conformance))
		expect(execFileSync('bash', [conformance, dir], { encoding: 'utf8' })).toMatch(/\n\d+ passed, 0 failed/);
	expect(Object.keys(unzipSync(readFileSync(zip)))).toContain('docs/run-sheet.html');
	rmSync(dir, { recursive: true });

	await page.getByRole('link', { name: 'Card files' }).click();
	await expect(page.getByText(/Compared with the set written/)).toBeVisible();
});

test('a plan with stops is not written, and says which; a fix is one press, and undo takes it back', async ({
	page
}) => {
	await open(page, '/endpoint/fog-horn-room/plan/sound');
	await page.getByRole('button', { name: 'Download card set' }).click();
	await expect(page.getByRole('button', { name: 'Download the set' })).toBeDisabled();
	await page.getByRole('dialog').getByRole('link', { name: 'There is no iec958 way to this converter' }).click();
	const stop = page.locator('[data-finding="sound.no-way"]');
	await stop.getByRole('button').click();
	await expect(stop).toHaveCount(0);
	await page.getByRole('heading', { level: 1 }).click();
	await page.keyboard.press('Control+z');
	await expect(stop).toBeVisible();
	await page.keyboard.press('Control+Shift+z');
	await expect(stop).toHaveCount(0);
	await saved(page);
	await page.reload();
	await expect(page.getByText('stops', { exact: false }).first()).toBeVisible();
	await expect(stop).toHaveCount(0);
	await page.getByRole('heading', { level: 1 }).click();
	await page.keyboard.press('Control+z');
	await expect(stop).toBeVisible();
});

test('a value that is not allowed stays in its field with the reason, and changes nothing', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/sound');
	const distance = page.getByLabel('Distance to the listener (m)');
	await distance.fill('far');
	await expect(page.getByText('A number, please.')).toBeVisible();
	await expect(distance).toHaveValue('far');
	await distance.fill('5');
	await expect(page.getByText('A number, please.')).toHaveCount(0);
	await expect(page.getByRole('navigation', { name: 'The chain' })).not.toContainText('77\u201380\u2009dB');
	await page.getByLabel('Card name').fill('two words');
	await expect(page.getByText(/Letters, digits/)).toBeVisible();
});

test('a line of a file leads to the setting behind it', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/files');
	await page.getByText('audio-device=alsa/hw:CARD=Field24,DEV=0').click();
	await page.getByRole('button', { name: 'Go to that setting' }).click();
	await expect(page.getByLabel('Card name')).toBeFocused();
});
