import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { digestFor, readDigests } from './digest';
import { sniffForm } from './form';
import { ImageScanner } from './scanner';

/** Made by sfdisk, mkfs.vfat, mcopy and mke2fs. */
const packed = (name: string): Uint8Array => readFileSync(resolve(import.meta.dirname, 'fixtures', `${name}.img.gz`));
const image = (name: string): Uint8Array => gunzipSync(packed(name));

function scan(bytes: Uint8Array, chunkBytes = 1 << 20) {
	const scanner = new ImageScanner();
	for (let at = 0; at < bytes.length; at += chunkBytes) scanner.push(bytes.subarray(at, at + chunkBytes));
	return scanner.finish();
}

describe('an image of a disk', () => {
	it('with an old table: partitions, file systems, names, and a place for a seed', () => {
		const { table, partitions, rawBytes, takesSeed } = scan(image('mbr'));
		expect(table?.kind).toBe('mbr');
		expect(rawBytes).toBe(40 * 2 ** 20);
		expect(
			partitions.map((p) => [p.number, p.firstByte, p.bytes, p.type, p.fileSystem?.type, p.fileSystem?.label])
		).toEqual([
			[1, 2048 * 512, 69632 * 512, 'FAT32', 'FAT32', 'bootfs'],
			[2, 71680 * 512, 8192 * 512, 'Linux', 'ext4', 'rootfs']
		]);
		expect(partitions[0]!.names).toEqual(['cmdline.txt', 'user-data', 'a long name with spaces.txt']);
		expect(takesSeed).toBe(true);
	});
	it.each([
		['mbr', 35_084_288],
		['gpt', 5_184_512]
	])('%s has the room on its first partition that mdir says', (name, free) =>
		expect(scan(image(name)).firstFreeBytes).toBe(free)
	);
	it('with a new one', () => {
		const { table, partitions, takesSeed } = scan(image('gpt'));
		expect(table?.kind).toBe('gpt');
		expect(partitions.map((p) => [p.type, p.name, p.boots, p.fileSystem?.type])).toEqual([
			['EFI system', 'efi part', true, 'FAT16'],
			['Linux', 'root', false, 'ext4']
		]);
		expect(takesSeed).toBe(false);
	});
	it('is the same in whatever pieces it flows by', () => {
		const bytes = image('gpt');
		const whole = scan(bytes, bytes.length);
		fc.assert(
			fc.property(fc.integer({ min: 997, max: 3_000_000 }), (chunk) => void expect(scan(bytes, chunk)).toEqual(whole)),
			{ numRuns: 12 }
		);
	});
	it('says so when it is none, and stands any bytes', () => {
		expect(scan(new Uint8Array(100_000))).toMatchObject({
			table: null,
			takesSeed: null,
			why: expect.stringContaining('No table')
		});
		expect(scan(new Uint8Array(10))).toMatchObject({ table: null, why: expect.stringContaining('shorter') });
		const bytes = image('mbr').slice(0, 200_000);
		fc.assert(
			fc.property(fc.array(fc.tuple(fc.nat(30_000), fc.nat(255)), { maxLength: 40 }), (changes) => {
				const torn = bytes.slice();
				for (const [at, value] of changes) torn[at] = value;
				scan(torn);
			})
		);
	});
	it('is known by its content', () => {
		expect(sniffForm(packed('mbr'))).toBe('gzip');
		expect(sniffForm(image('mbr'))).toBe('raw');
		for (const [form, head] of [
			['xz', [0xfd, 0x37, 0x7a, 0x58, 0x5a, 0]],
			['zstd', [0x28, 0xb5, 0x2f, 0xfd]],
			['zip', [0x50, 0x4b, 3, 4]]
		] as const)
			expect(sniffForm(Uint8Array.from(head))).toBe(form);
	});
});

describe('a digest', () => {
	const hex = 'ab'.repeat(32);
	it.each([
		['alone', hex, ''],
		['as sha256sum writes it', `${hex}  night.img.xz\n`, 'night.img.xz'],
		['of a binary file', `${hex} *night.img.xz`, 'night.img.xz'],
		['as BSD writes it', `SHA256 (night.img.xz) = ${hex.toUpperCase()}`, 'night.img.xz']
	])('%s', (_, text, name) => expect(readDigests(text)).toEqual({ ok: true, value: [{ kind: 'sha256', hex, name }] }));
	it('is found by the file\u2019s name, or when it is the only one', () => {
		const list = readDigests(`${hex}  a.img\n${'cd'.repeat(20)}  b.img\n`);
		if (!list.ok) throw new Error('not read');
		expect(digestFor(list.value, 'b.img')).toMatchObject({ kind: 'sha1' });
		expect(digestFor(list.value, 'c.img')).toBeNull();
		expect(digestFor(list.value.slice(0, 1), 'c.img')).toMatchObject({ hex });
	});
	it('is not a signature, and that is said', () => {
		for (const text of ['-----BEGIN PGP SIGNATURE-----\n\niQ', 'untrusted comment: signature\nRWQ'])
			expect(readDigests(text)).toMatchObject({ ok: false, faults: [{ code: 'digest-signature' }] });
		expect(readDigests('see the page')).toMatchObject({ ok: false, faults: [{ code: 'digest-none' }] });
	});
});
