import { readFileSync } from 'node:fs';
import { writeTone } from '../src/core/formats/wav/wav';
import { expect, open, saved, test } from './app';

const tone = Buffer.from(
	writeTone({ pitchHz: 330, peakDbfs: -6, sampleRateHz: 96_000, bitDepth: 16, channels: 2, durationMs: 200 })
);

test('sources: files and streams are added, named, ordered, described and taken out', async ({ page }) => {
	await open(page, '/endpoint/test-bench/plan/sources');
	await page
		.locator('input[type=file][accept*=audio]')
		.setInputFiles({ name: 'Gull, "loud"?.wav', mimeType: 'audio/wav', buffer: tone });
	await expect(page.getByText('1 file added.')).toBeVisible();
	await expect(page.getByLabel('How entry 2 is made')).toHaveValue('96/16');
	await page.getByLabel('Address of a stream').fill('ftp on the roof');
	await page.getByRole('button', { name: 'Add stream' }).click();
	await expect(page.getByText(/An address begins with/)).toBeVisible();
	await page.getByLabel('Address of a stream').fill('http://radio.skerrin.example:8000/tide?a="b"');
	await page.getByRole('button', { name: 'Add stream' }).click();
	await page.getByLabel('Title of entry 3').fill('Tide, live');
	await page.getByLabel('How entry 3 is made').fill('44,1/ogg');
	await page.keyboard.press('Tab');
	await expect(page.getByLabel('How entry 3 is made')).toHaveValue('44.1/ogg');
	await page.getByRole('button', { name: 'Move entry 3 up' }).click();
	await expect(page.getByLabel('Title of entry 2')).toHaveValue('Tide, live');
	await expect(page.getByText('1 entry is never reached')).toBeVisible();
	await page.getByRole('button', { name: 'Files first, then streams' }).click();
	await expect(page.getByLabel('Title of entry 3')).toHaveValue('Tide, live');

	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Save as XSPF' }).click();
	expect(readFileSync(await (await downloading).path(), 'utf8')).toContain('<title>Tide, live</title>');

	// The file's own bytes are in the card set, under a name that every file system takes, and survive a reload.
	await saved(page);
	await page.goto('/endpoint/test-bench/files');
	await page.getByText(/^Gull, _loud__-[0-9a-f]{8}\.wav$/).click();
	await expect(page.getByText(/76\.8\skB of media/)).toBeVisible();

	await page.goto('/endpoint/test-bench/plan/sources');
	await page.getByRole('button', { name: 'Remove entry 3' }).click();
	await expect(page.getByLabel('Title of entry 3')).toHaveCount(0);
	await page.keyboard.press('Control+z');
	await expect(page.getByLabel('Title of entry 3')).toHaveValue('Tide, live');
});

test('sources: a broken playlist is refused with a reason and leaves the list alone', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/sources');
	const put = (name: string, content: string | Buffer) =>
		page
			.locator('input[type=file][accept*=m3u]')
			.setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(content) });
	await put('torn.xspf', '<playlist><trackList>');
	await expect(page.getByText(/torn\.xspf: .*not well-formed/)).toBeVisible();
	await put('empty.m3u', '# nothing\n');
	await expect(page.getByText(/empty\.m3u: There is no entry/)).toBeVisible();
	await expect(page.getByRole('heading', { name: /The list 6 entries/ })).toBeVisible();
	await put('old.m3u', Buffer.from([...Buffer.from('#EXTINF:9,Caf'), 0xe9, 10, ...Buffer.from('cafe.mp3\r\n')]));
	await expect(page.getByText(/read as Latin-1/)).toBeVisible();
	await expect(page.getByLabel('Title of entry 7')).toHaveValue('Café');
});

test('sources: a share is asked what it has, its files come from a list, and its password is asked for once', async ({
	page
}) => {
	await open(page, '/endpoint/test-bench/plan/sources');
	await page.getByRole('button', { name: 'Add SMB share' }).click();
	const share = page.getByRole('region', { name: 'Windows share (SMB)' });
	await share.getByLabel('Server').fill('-oexec');
	await expect(share.getByText('A server has a name or a number')).toBeVisible();
	await share.getByLabel('Server').fill('files.local');
	await share.getByLabel('User').fill('bench');
	await share.getByText('Ask the server what it has').click();
	const said =
		'\tSharename       Type      Comment\n\t---------       ----      -------\n\ttides           Disk      \n';
	await share.getByLabel('What it printed').fill(said);
	await share.getByRole('button', { name: 'Use tides' }).click();
	await expect(share.getByText('tides is there.')).toBeVisible();
	await share.getByText('Add its files from a list').click();
	const buffer = Buffer.from('7\tNight/Low tide.flac\n9\tNight/cover.txt\n');
	await share.locator('input[type=file]').setInputFiles({ name: 'list.txt', mimeType: 'text/plain', buffer });
	await expect(share.getByText('1 file added.')).toBeVisible();
	await expect(page.getByText('/srv/music/Night/Low tide.flac')).toBeVisible();
	await share.getByLabel('Folder on the endpoint').fill('tides');
	await expect(page.getByText('/srv/tides/Night/Low tide.flac')).toBeVisible();
	await expect(page.getByText('can be read off the card')).toBeVisible();
	await page.getByRole('button', { name: 'Download card set' }).click();
	const dialog = page.getByRole('dialog');
	await expect(dialog.getByLabel('Password of bench for tides on files.local')).toBeVisible();
	await expect(dialog.getByRole('button', { name: 'Download the set' })).toBeDisabled();
});

test('power: a thinner lead shows at once where the volts go, and the fix brings them back', async ({ page }) => {
	await open(page, '/endpoint/fog-horn-room/plan/power');
	const drawing = page.getByRole('img', { name: /volts at the supply/ });
	await expect(drawing).toHaveAccessibleName(/3\.42 at the board/);
	await expect(page.locator('canvas')).toBeVisible();
	await expect(page.getByRole('heading', { name: /Only 3\.42\sV reach the board/ })).toBeVisible();
	await page.getByRole('button', { name: 'Use Thick USB-A to Micro-USB cable, 0.5 m, 20 AWG' }).click();
	await expect(drawing).toHaveAccessibleName(/4\.\d+ at the board/);
	const contacts = page.getByLabel('Contacts of the plugs, together (mΩ)');
	await contacts.focus();
	await page.keyboard.press('ArrowUp');
	await expect(contacts).toHaveValue('45');
	await page.getByRole('button', { name: 'Use Supply 5.1 V, 2.5 A, fixed Micro-USB cable' }).first().click();
	await expect(page.getByText('No problems found.')).toBeVisible();
	await page.getByRole('button', { name: 'Plan one all the same' }).click();
	await expect(page.getByRole('heading', { name: 'The mains inlet is not safe' })).toBeVisible();
	await page.getByRole('button', { name: 'Use a ready-made supply instead' }).first().click();
	await expect(page.getByText('No problems found.')).toBeVisible();
});

test('brief, parts, header and heat: from a crowded box to one that stays cool', async ({ page }) => {
	await open(page, '/endpoint/lamp-room/plan/header');
	await expect(page.getByRole('img', { name: /lines taken, 9 wanted twice/ })).toBeVisible();
	await page.getByRole('button', { name: 'Wire the fan control to pin 15 (GPIO 22)' }).click();
	await expect(page.getByLabel('Where its fan control goes')).toHaveValue('22');
	await page.getByRole('button', { name: 'Use USB converter, 24 bit, to 96 kHz' }).click();
	await page.getByRole('button', { name: 'Add a stacking header' }).click();
	await expect(page.getByText('No problems found.')).toBeVisible();

	const chain = page.getByRole('navigation', { name: 'The chain' });
	await chain.getByText('Parts', { exact: true }).click();
	await page.getByRole('button', { name: 'Add USB-A to USB-B cable, 1.5 m' }).click();
	await page.getByLabel('Add to the list').selectOption({ label: 'Ethernet cable, 2 m' });
	await page.getByRole('button', { name: 'One more: Ethernet cable, 2 m' }).click();
	await expect(page.getByText('No problems found.')).toBeVisible();

	await chain.getByText('Heat', { exact: true }).click();
	await page.getByLabel('The room at its warmest (°C)').fill('31');
	await expect(page.getByRole('heading', { name: /Too hot after/ })).toBeVisible();
	await page.getByRole('button', { name: 'Stand it free in the room' }).click();
	await expect(page.getByRole('heading', { name: /Too hot after/ })).toHaveCount(0);
	await page.getByLabel('The room at its warmest (°C)').fill('27');
	for (const [minutes, celsius] of [
		['5', '44'],
		['60', '58,7']
	] as const) {
		await page.getByLabel('after (min)').fill(minutes);
		await page.getByLabel('chip (°C)').fill(celsius);
		await page.getByRole('button', { name: 'Add', exact: true }).click();
	}
	await expect(page.getByRole('img', { name: /settles at 59 degrees/ })).toBeVisible();

	await chain.getByText('Brief', { exact: true }).click();
	await page.getByLabel('Hardest film it must show smoothly').selectOption('H.265, 2160 lines, 60 a second, 10 bit');
	await expect(page.getByText(/processors are \d+\.\d times too slow/).first()).toBeVisible();
	await page.getByRole('button', { name: 'Use Full-size board, 2 GB, two micro HDMI ports' }).click();
	await expect(page.getByRole('row', { name: /Full-size board, 2 GB/ })).toContainText('in use');
});

test('programme: quiet hours are drawn, refused when they are no time, and taken out', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/programme');
	await page.getByRole('button', { name: 'Sat', exact: true }).click();
	await expect(page.getByRole('button', { name: 'Sat', exact: true })).toHaveAttribute('aria-pressed', 'false');
	await page.getByLabel('Until').fill('7 in the morning');
	await expect(page.getByText('Hours and minutes, such as 22:00.')).toBeVisible();
	await page.getByLabel('Until').fill('22:00');
	await page.getByRole('button', { name: 'Take it out' }).click();
	await expect(page.getByText('None: it may sound at any hour.')).toBeVisible();
});

test('a link that is done without is dashed, leaves the card, and comes back with its settings by one press', async ({
	page
}) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/programme');
	await page.getByRole('button', { name: 'Do without programme' }).click();
	await expect(page.getByText('This endpoint does without it.')).toBeVisible();
	await page
		.getByRole('navigation', { name: 'The chain' })
		.getByRole('link', { name: /^Sources/ })
		.click();
	await expect(page.getByRole('heading', { name: 'Nothing plays this list' })).toBeVisible();
	await page.goto('/endpoint/bunkhouse-lounge/files');
	await expect(page.getByText('asound.conf').first()).toBeVisible();
	await expect(page.getByText('mpv.conf')).toHaveCount(0);
	await page.goto('/endpoint/bunkhouse-lounge/plan/sound');
	await page.getByRole('button', { name: /^Programme\s+not used/ }).click();
	await expect(page.getByLabel('Until')).toHaveValue('07:00');
});

test('an endpoint for recording begins without what it does not need: sound, picture, sources, programme and three more', async ({
	page
}) => {
	await open(page, '/');
	await page.getByLabel('Kind of the new endpoint').selectOption('Recording broadcasts');
	await page.getByRole('button', { name: 'New endpoint' }).click();
	const chain = page.getByRole('navigation', { name: 'The chain' });
	await expect(chain.getByRole('button', { name: /not used/ })).toHaveCount(7);
	await expect(page.getByLabel('Kind of endpoint')).toHaveValue('recorder');
});

test('network: the radio asks for its pass phrase when the set is written, and keeps it nowhere', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/plan/network');
	await page.getByLabel('Connection').selectOption('Wi-Fi');
	await page.getByLabel('Wi-Fi name').fill('Skerrin "guests"');
	await page.getByLabel('Country').fill('FO');
	await page.getByRole('button', { name: 'Download card set' }).click();
	const write = page.getByRole('button', { name: 'Download the set' });
	await expect(write).toBeDisabled();
	await page.getByLabel(/Wi-Fi password of/).fill('short');
	await write.click();
	await expect(page.getByText(/8 to 63 characters/)).toBeVisible();
	await page.getByLabel(/Wi-Fi password of/).fill('lantern and lens');
	await page.getByText('Keep them in this browser').click();
	await page.getByLabel(/A new pass phrase, for the vault alone/).fill('every gull has a name');
	await page.getByLabel('The same pass phrase once more').fill('every gull has a name');
	const downloading = page.waitForEvent('download');
	await write.click();
	await downloading;
	await saved(page);
	await page.getByRole('button', { name: 'Download card set' }).click();
	await page.getByLabel(/^Pass phrase of the vault/).fill('a gull without name');
	await page.getByRole('button', { name: 'Take them out of the vault' }).click();
	await expect(page.getByText(/does not open with this pass phrase/)).toBeVisible();
	await page.getByLabel(/^Pass phrase of the vault/).fill('every gull has a name');
	await page.getByRole('button', { name: 'Take them out of the vault' }).click();
	await expect(page.getByLabel(/Wi-Fi password of/)).toHaveValue('lantern and lens');
	await page.getByRole('button', { name: 'Not now' }).click();
	const kept = await page.evaluate(async () => {
		const opened = indexedDB.open('yphos');
		await new Promise((done) => (opened.onsuccess = done));
		const stores = [...opened.result.objectStoreNames].filter((name) => name !== 'media');
		const read = (name: string) => opened.result.transaction(name).objectStore(name).getAll();
		const all = stores.map(read);
		await Promise.all(all.map((request) => new Promise((done) => (request.onsuccess = done))));
		return JSON.stringify(all.map(({ result }) => result as unknown));
	});
	expect(kept).toContain('Skerrin \\"guests\\"');
	expect(kept).not.toContain('lantern and lens');
	expect(kept).not.toMatch(/psk=[0-9a-f]{64}/);
});

test('run sheet: steps are ticked, readings noted, and both are there after a reload', async ({ page }) => {
	await page.setViewportSize({ width: 360, height: 740 });
	await page.goto('/endpoint/bunkhouse-lounge/run-sheet');
	await page.getByRole('checkbox').first().check();
	await page.getByLabel(/Note its address/).fill('192.168.4.20');
	await page.keyboard.press('Tab');
	await expect(page.getByText(/^2 of \d+ done/)).toBeVisible();
	await page.waitForTimeout(600);
	await page.reload();
	await expect(page.getByText(/^2 of \d+ done/)).toBeVisible();
	await expect(page.getByLabel(/Note its address/)).toHaveValue('192.168.4.20');
	const downloading = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Save a page to print' }).click();
	expect(readFileSync(await (await downloading).path(), 'utf8')).toContain('Take care.');
});

test('rehearsal: a whole night, played, scrubbed and broken', async ({ page }) => {
	await open(page, '/endpoint/bunkhouse-lounge/rehearsal');
	await page.getByLabel('For').selectOption('a day');
	const moment = page.getByRole('slider', { name: 'Moment of the rehearsal' });
	await moment.focus();
	await page.keyboard.press('End');
	await expect(page.getByRole('region', { name: 'Events' })).toContainText('Quiet hours end');
	await page.getByRole('button', { name: 'Network comes late' }).click();
	await expect(page.getByText(/Network comes late at/)).toBeVisible();
	await page.keyboard.press('Home');
	await page.getByLabel('Speed').selectOption('10000×');
	await page.getByRole('button', { name: 'Play' }).click();
	await expect(page.getByText('music at the seat, at most')).toBeVisible();
	await page.getByRole('button', { name: 'Pause' }).click();
});

test('an endpoint is made, removed and brought back; lamplight stays chosen', async ({ page }) => {
	await open(page, '/');
	await page.getByRole('button', { name: 'New endpoint' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Endpoint 7');
	await saved(page);
	await page.goto('/');
	const cards = page.getByRole('main').getByRole('article');
	await expect(cards).toHaveCount(7);
	await page.getByRole('button', { name: 'Remove' }).first().click();
	await expect(cards).toHaveCount(6);
	await page.keyboard.press('Control+z');
	await expect(cards).toHaveCount(7);
	await page.keyboard.press('g');
	await page.keyboard.press('l');
	await expect(page.locator('html')).toHaveAttribute('data-theme', 'lamp');
	await page.reload();
	await expect(page.locator('html')).toHaveAttribute('data-theme', 'lamp');
});

test.describe('without a network', () => {
	test.use({ serviceWorkers: 'allow' });
	test('it works after the first visit', async ({ page, context }) => {
		await open(page, '/');
		await page.evaluate(() => navigator.serviceWorker.ready);
		await page.waitForTimeout(500);
		await context.setOffline(true);
		await page.goto('/endpoint/fog-horn-room/plan/sound');
		await expect(page.getByText('There is no iec958 way to this converter')).toBeVisible();
		await page.goto('/endpoint/fog-horn-room/rehearsal');
		await expect(page.locator('[data-verdict]')).toContainText('Silence');
	});
});

test('receiving: a mistake is told and mended by one press, and what is sent is heard in the rehearsal', async ({
	page
}) => {
	await open(page, '/endpoint/test-bench/plan/receiving');
	await expect(page.getByText('Whoever is near may play here')).toBeVisible();
	await expect(page.getByRole('img', { name: /Bluetooth 515 ms, sound server 480 ms, RTP 545 ms/ })).toBeVisible();
	await page.getByLabel('Kept ready (ms)').fill('120');
	await expect(page.getByText('In steps of 50\u2009ms.')).toBeVisible();
	await page.getByLabel('Kept ready (ms)').fill('200');
	await expect(page.getByRole('img', { name: /Bluetooth 390 ms/ })).toBeVisible();
	await page.getByLabel('Port for RTP (UDP)').fill('6000');
	await expect(page.getByText(/rtp_mpegts rtp:\/\/bench\.local:6000$/).first()).toBeVisible();

	await page.goto('/endpoint/test-bench/plan/sound');
	await page.getByLabel('Sample rate').selectOption('follow');
	await page.goto('/endpoint/test-bench/plan/receiving');
	await expect(page.getByText('4 programs want the sound output, and one holds it')).toBeVisible();
	await page.getByRole('button', { name: 'Share the sound output' }).click();
	await expect(page.getByText('4 programs want the sound output, and one holds it')).toHaveCount(0);

	await page.goto('/endpoint/test-bench/rehearsal');
	await page.getByRole('button', { name: 'A phone sends', exact: true }).click();
	await expect(page.getByText(/A phone sends its sound to .Test bench./).first()).toBeVisible({ timeout: 30_000 });
	await expect(page.getByText('The list rests while somebody sends').first()).toBeVisible();
});
