import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { fromListing } from '../links/sources/stores/fromListing';
import type { Store } from '../links/sources/stores/stores';
import { readFileListing } from './fileListing';

const folder = mkdtempSync(join(tmpdir(), 'yphos-listing-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
mkdirSync(join(folder, 'Evenings', 'deep er'), { recursive: true });
const FILES = {
	'Slow tide.flac': 7,
	'Evenings/a\u00e6 b.mp3': 11,
	'Evenings/deep er/c.txt': 3,
	'Evenings/deep er/d.mp4': 0
};
for (const [path, size] of Object.entries(FILES)) writeFileSync(join(folder, path), 'x'.repeat(size));

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = (text: string) => {
	const listing = readFileListing(bytes(text));
	if (!listing.ok) throw new Error(listing.faults[0]!.message);
	return listing.value;
};
const sizes = (text: string) => Object.fromEntries(read(text).files.map(({ path, sizeBytes }) => [path, sizeBytes]));
const sh = (command: string): string =>
	execFileSync('sh', ['-c', command], {
		cwd: folder,
		encoding: 'utf8',
		env: { PATH: process.env.PATH, LC_ALL: 'C.UTF-8' }
	});
const SHARE: Store = {
	id: 'a',
	name: 'music',
	kind: 'nfs',
	server: 'files',
	share: '/export/music',
	version: 'auto',
	access: 'read'
};

// As ffprobe 5.1 printed it, less of it.
const PROBE = `{
    "streams": [
        { "index": 0, "codec_name": "h264", "codec_type": "video", "width": 320, "height": 240, "pix_fmt": "yuv420p", "r_frame_rate": "25/1", "avg_frame_rate": "30000/1001", "bits_per_raw_sample": "8",
            "disposition": { "attached_pic": 0 } },
        { "index": 1, "codec_name": "aac", "codec_type": "audio", "sample_rate": "44100", "channels": 1, "bits_per_sample": 0 }
    ],
    "format": { "filename": "./Evenings/v.mp4", "duration": "1.500000", "size": "18550", "tags": { "title": "A {brace} and \\"quotes\\"" } }
}
`;
const FLAC = `{ "streams": [ { "codec_name": "flac", "codec_type": "audio", "sample_rate": "44100", "channels": 2, "bits_per_raw_sample": "16" },
 { "codec_name": "mjpeg", "codec_type": "video", "width": 600, "height": 600, "avg_frame_rate": "0/0", "disposition": { "attached_pic": 1 } } ],
 "format": { "filename": "./a.flac", "duration": "2.000000", "size": "33185" } }
`;

describe('a listing of files', () => {
	it('by find, by ls and by names is read as they lie there', () => {
		expect(sizes(sh("find . -type f -printf '%s\\t%P\\n'"))).toEqual(FILES);
		expect(sizes(sh('ls -lR'))).toEqual(FILES);
		const names = read(sh('find . -type f'));
		expect([names.by, names.files.map(({ path }) => path).sort()]).toEqual(['names', Object.keys(FILES).sort()]);
	});
	it('of a Windows shell is read too: backslashes, line ends, two bytes for each letter', () => {
		const text = '7\t.\\Slow tide.flac\r\n11\t.\\Evenings\\a\u00e6 b.mp3\r\n';
		const wide = new Uint8Array(2 + text.length * 2);
		wide.set([0xff, 0xfe]);
		for (let n = 0; n < text.length; n++) wide.set([text.charCodeAt(n) & 0xff, text.charCodeAt(n) >> 8], 2 + n * 2);
		const listing = readFileListing(wide);
		expect(listing.ok && listing.value.files.map(({ path, sizeBytes }) => [path, sizeBytes])).toEqual([
			['Slow tide.flac', 7],
			['Evenings/a\u00e6 b.mp3', 11]
		]);
	});
	it('by ffprobe brings facts, one object after the other or in a list, the last cut off or not', () => {
		for (const text of [PROBE + FLAC, `[${PROBE},${FLAC}]`, `${PROBE}${FLAC}${PROBE.slice(0, 200)}`]) {
			const { by, files } = read(text);
			expect([by, files.map(({ path }) => path)]).toEqual(['ffprobe', ['Evenings/v.mp4', 'a.flac']]);
			expect(files[0]!.probed).toEqual({
				durationMs: 1500,
				title: 'A {brace} and "quotes"',
				sound: { codec: 'aac', sampleRateHz: 44_100, channels: 1, bits: null },
				picture: {
					codec: 'h264',
					widthPx: 320,
					heightPx: 240,
					framesPerSec: 30_000 / 1001,
					bitDepth: 8,
					chroma: '4:2:0',
					fullRange: null,
					interlaced: false,
					hdr: null
				}
			});
			expect(files[1]!.probed!.picture).toBeNull();
		}
	});
	it.each([
		['', 'nothing in it'],
		['{ "streams": [', 'Paste all of it'],
		['[]', 'names no file'],
		['{"a":1}', 'names no file'],
		['\n\n', 'nothing in it']
	])('%j is refused with what to do', (text, words) => {
		const listing = readFileListing(bytes(text));
		expect(listing.ok).toBe(false);
		if (!listing.ok) expect(listing.faults[0]!.message).toContain(words);
	});
	it('ten thousand damaged ones end, and throw nothing', () => {
		const whole = PROBE + FLAC;
		fc.assert(
			fc.property(
				fc.array(fc.nat({ max: whole.length - 1 }), { maxLength: 6 }),
				fc.string({ unit: 'binary', maxLength: 5 }),
				(places, put) => {
					let text = whole;
					for (const at of places) text = text.slice(0, at) + put + text.slice(at + 1);
					const listing = readFileListing(bytes(text));
					if (listing.ok) fromListing(listing.value, SHARE);
				}
			),
			{ numRuns: 10_000 }
		);
	});
	it('a hundred thousand brackets are no trouble', () => {
		for (const text of ['{'.repeat(100_000), '['.repeat(100_000), '{"a":"'.repeat(20_000), ':\n'.repeat(50_000)])
			expect(typeof readFileListing(bytes(text)).ok).toBe('boolean');
	});
});

describe('what a listing brings to a list', () => {
	it('lies on the store, in the order of its path, with what is known of it', () => {
		const { entries, media, leftOut } = fromListing(read(PROBE + FLAC), SHARE);
		expect(entries).toEqual([
			{ location: '/srv/music/Evenings/v.mp4', title: 'A {brace} and "quotes"', durationSec: 2 },
			{ location: '/srv/music/a.flac', title: 'a', durationSec: 2 }
		]);
		expect(leftOut).toBe(0);
		expect(media).toMatchObject([
			{ codec: 'aac', lossless: false, picture: { codec: 'h264' }, kept: 'person', sizeBytes: 18_550 },
			{ codec: 'flac', lossless: true, bitDepth: 16, durationMs: 2000 }
		]);
	});
	it.each([
		['/export/music/A/x.mp3\n/export/music/B/y.mp3', ['/srv/music/A/x.mp3', '/srv/music/B/y.mp3']],
		['/mnt/disk/A/x.mp3\n/mnt/disk/B/y.mp3', ['/srv/music/A/x.mp3', '/srv/music/B/y.mp3']],
		['C:\\Music\\A\\x.mp3\nC:\\Music\\A\\y.mp3', ['/srv/music/x.mp3', '/srv/music/y.mp3']],
		['A/x.mp3\nA/x.mp3\nA/cover.txt\n', ['/srv/music/A/x.mp3']]
	])('%j: %j', (text, locations) =>
		expect(fromListing(read(text), SHARE).entries.map(({ location }) => location)).toEqual(locations)
	);
});
