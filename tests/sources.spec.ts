import { spawnSync } from 'node:child_process';
import { expect, open, saved, test } from './app';

const ffmpeg = (command: string): Buffer =>
	spawnSync('ffmpeg', `-v error ${command} -`.split(' '), { maxBuffer: 1 << 26 }).stdout;

test('a film is looked into: profile, loudness, frames; photographs are fitted to the screen', async ({ page }) => {
	const film = ffmpeg(
		'-f lavfi -i sine=440:duration=3:sample_rate=48000 -f lavfi -i testsrc2=size=320x180:rate=25:duration=3 -c:v libx264 -pix_fmt yuv420p -c:a aac -metadata title=Ebb -metadata artist=Skerries -f mp4 -movflags frag_keyframe+empty_moov'
	);
	const photo = ffmpeg('-f lavfi -i testsrc2=size=3000x2000 -frames:v 1 -c:v mjpeg -q:v 3 -f image2pipe');
	await open(page, '/endpoint/lamp-room/plan/sources');
	await page.locator('input[type=file][accept*=audio]').setInputFiles([
		{ name: 'ebb.mp4', mimeType: 'video/mp4', buffer: film },
		{ name: 'gull.jpg', mimeType: 'image/jpeg', buffer: photo }
	]);
	await expect(page.getByText('2 files added.')).toBeVisible();
	await expect(page.getByLabel('Title of entry 3')).toHaveValue('Skerries – Ebb');
	await page.getByLabel('Choose entry 3').click();
	const about = page.getByRole('region', { name: 'About Skerries – Ebb' });
	await expect(about).toContainText('h264 High, level 1.2, 320 × 180, 25 frames a second, 8 bit 4:2:0');
	await expect(about).toContainText(/−2[12]\.\d\sLUFS/);
	await expect(about.getByRole('img')).toBeVisible();

	await page.getByRole('button', { name: 'Fit it' }).click();
	await expect(page.getByText(/1 fitted; .* saved/)).toBeVisible();
	await expect(page.getByTitle('gull.fitted.jpg')).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(page.getByTitle('gull.jpg', { exact: true })).toBeVisible();
});

test('a list of ten thousand is searched, chosen from and put in order by keyboard', async ({ page }) => {
	await open(page, '/endpoint/test-bench/plan/sources');
	const many = Array.from({ length: 9_990 }, (_, n) => `#EXTINF:${(n % 300) + 1},Song ${n}\nsong-${n}.mp3`).join('\n');
	await page
		.locator('input[type=file][accept*=m3u8]')
		.setInputFiles({ name: 'many.m3u8', mimeType: 'audio/x-mpegurl', buffer: Buffer.from(`#EXTM3U\n${many}\n`) });
	await expect(page.getByText(/9990 entries, M3U/)).toBeVisible();
	await page.getByLabel('Choose entry 1', { exact: true }).focus();
	await page.keyboard.press('End');
	await expect(page.getByLabel('Choose entry 9991')).toBeFocused();
	// Far fewer rows are drawn than stand in the list.
	expect(await page.getByRole('button', { name: /^Choose entry/ }).count()).toBeLessThan(60);
	await page.keyboard.press('Shift+ArrowUp');
	await page.keyboard.press('Shift+ArrowUp');
	await page.keyboard.press('Alt+ArrowUp');
	await expect(page.getByLabel('Title of entry 9988')).toHaveValue('Song 9987');
	await page.getByRole('searchbox', { name: 'Find in the list' }).fill('song 4242');
	await expect(page.getByText('1 of 9991 found')).toBeVisible();
	await expect(page.getByLabel('Title of entry 4244')).toHaveValue('Song 4242');
	await page.getByRole('searchbox', { name: 'Find in the list' }).fill('');
	await page.getByRole('button', { name: 'Length' }).click();
	await expect(page.getByLabel('Title of entry 1', { exact: true })).toHaveValue('Song 0');
	await page.keyboard.press('Control+z');
	await saved(page);
});

test('a stream is tried: how it is made, what is played on it, and why another is not', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/sources');
	await page.getByLabel('Choose entry 5').click();
	await page.getByRole('button', { name: 'Try this stream' }).click();
	await expect(page.getByText('aac, 48 kHz, stereo, 128 kbit/s')).toBeVisible();
	await expect(page.getByText(/The Skerries . Slow tide/)).toBeVisible();
	await page.getByRole('button', { name: 'Stop', exact: true }).click();
	await page.getByRole('button', { name: 'Take these figures' }).click();
	for (const [address, why] of [
		['night?refuse', 'it refuses, or is full'],
		['night?circle', 'leads round in a circle'],
		['list-circle.m3u', 'One list leads to the next'],
		['night?type', 'A page is at this address']
	] as const) {
		await page.getByLabel(/Address of a stream/).fill(`http://radio.skerrin.example:8000/${address}`);
		await page.getByRole('button', { name: 'Add to the list' }).click();
		await page.getByLabel('Choose entry 7').click();
		await page.getByRole('button', { name: 'Try this stream' }).click();
		await expect(page.getByText(why)).toBeVisible();
		await page.getByRole('button', { name: 'Remove entry 7' }).click();
	}
});

test('a stream is fetched for our own page alone, and never from this computer', async ({ request, page, baseURL }) => {
	const body = { url: `${baseURL}/`, allowed: null };
	expect((await request.post('/streams/open', { data: body })).status()).toBe(403);
	expect(
		(
			await request.post('/streams/open', {
				data: body,
				headers: { 'sec-fetch-site': 'cross-site', origin: 'http://evil.example' }
			})
		).status()
	).toBe(403);
	await open(page, '/');
	const why = (url: string) =>
		page.evaluate(
			async (address) =>
				(
					(await (
						await fetch('/streams/open', {
							method: 'POST',
							body: JSON.stringify({ url: address, allowed: '127.0.0.0/8' })
						})
					).json()) as { why: string }
				).why,
			url
		);
	for (const url of [`${baseURL}/`, 'http://localhost:1/', 'http://[::1]/', 'http://2130706433/'])
		expect(await why(url), url).toContain('this computer itself');
	expect(await why('http://10.0.0.1/')).toContain('private network');
});

test('a station’s logo is fetched and kept; what is no picture says so', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/sources');
	await page.getByLabel('Choose entry 5').click();
	await page.getByRole('button', { name: 'Show the logo' }).click();
	await expect(page.getByRole('img', { name: 'Logo of Harbour Radio' })).toBeVisible();
	await page.reload();
	await page.getByLabel('Choose entry 5').click();
	await expect(page.getByRole('img', { name: 'Logo of Harbour Radio' })).toBeVisible();
	await page.getByLabel('Address of its logo').fill('http://radio.skerrin.example:8000/list.m3u');
	await page.getByLabel('Address of its logo').blur();
	await page.getByRole('button', { name: 'Show the logo' }).click();
	await expect(page.getByText('is no picture that a browser shows')).toBeVisible();
});

test('of an entry a part is played, softer; what cannot be is refused where it is typed', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/sources');
	await page.getByLabel('Choose entry 1', { exact: true }).click();
	const about = page.getByRole('region', { name: 'About Harbour bell in A' });
	const type = async (label: string, text: string): Promise<void> => {
		await about.getByLabel(label).fill(text);
		await about.getByLabel(label).press('Tab');
	};
	await type('Begins at', '1.5');
	await type('Ends at', '0:01');
	await expect(about.getByRole('alert')).toContainText('It ends before it begins');
	await type('Ends at', 'soon');
	await expect(about.getByRole('alert')).toContainText('Type a time as 1:23.5');
	await type('Ends at', '0:03');
	await expect(about.getByRole('alert')).toHaveCount(0);
	await expect(about).toContainText('Plays for 0:01.5.');
	await type('Softer by (dB)', '6');
	await saved(page);
	await page.goto('/endpoint/bunkhouse-lounge/files');
	await page
		.getByRole('button', { name: /playlist\.m3u8/ })
		.first()
		.click();
	await expect(page.getByText('Harbour bell in A.wav#t=1.5,3&gain=-6')).toBeVisible();
});
