import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { confirmationOf, isConfirmed, proveCommands, writeCommands } from './commands';
import { powerShellQuote } from './commands/windows';
import type { HostDisk } from './disk';
import { readDisks } from './read';
import { judgeDisks, pulledOut } from './verdict';

const fixture = (name: string): string => readFileSync(resolve(import.meta.dirname, 'fixtures', name), 'utf8');
const disksOf = (text: string): readonly HostDisk[] => {
	const read = readDisks(text);
	if (!read.ok) throw new Error(read.faults[0]!.message);
	return read.value.disks;
};
const WANTED = { imageBytes: 2.8e9, cardGb: 32 };
const verdicts = (text: string, wanted: { imageBytes: number | null; cardGb: number | null } = WANTED) =>
	Object.fromEntries(judgeDisks(disksOf(text), wanted).map(({ disk, verdict }) => [disk.id, verdict]));

describe('listings of disks', () => {
	it.each([
		['linux-laptop.json', { '/dev/sda': 'card', '/dev/sdb': 'never', '/dev/nvme0n1': 'never' }],
		['linux-machine.json', { '/dev/vda': 'never' }],
		['macos-list.txt', { disk0: 'never', disk4: 'card' }],
		['macos-list.plist', { disk0: 'never', disk4: 'card' }],
		['windows-disks.txt', { 0: 'never', 1: 'card' }]
	])('%s: each disk has its verdict', (name, expected) => expect(verdicts(fixture(name))).toEqual(expected));
	it('no card is smaller than the image, by however little, and the image may fill it', () => {
		const [card] = disksOf(fixture('linux-laptop.json')).filter(({ id }) => id === '/dev/sda');
		const verdict = (imageBytes: number): string => judgeDisks([card!], { imageBytes, cardGb: null })[0]!.verdict;
		expect([verdict(card!.sizeBytes!), verdict(card!.sizeBytes! + 1), verdict(card!.sizeBytes! * 1.9)]).toEqual([
			'card',
			'never',
			'never'
		]);
	});
	it('a card beside what may be one is itself only a maybe', () => {
		const [card] = disksOf(fixture('linux-laptop.json')).filter(({ id }) => id === '/dev/sda');
		const small = { ...card!, id: '/dev/sdz', serial: 'other', sizeBytes: 1.5e9 };
		const alone = judgeDisks([small], { imageBytes: null, cardGb: null });
		expect(alone.map(({ verdict }) => verdict)).toEqual(['maybe']);
		const both = judgeDisks([card!, small], { imageBytes: null, cardGb: null });
		expect(both.map(({ verdict }) => verdict)).toEqual(['maybe', 'maybe']);
		expect(both[0]!.reasons.join()).toContain('another disk could be the card');
	});
	it('is read with Windows line ends and a prompt around it as well', () =>
		expect(verdicts(`\ufeff$ lsblk -J\n${fixture('linux-laptop.json')}$ `.replace(/\n/g, '\r\n'))['/dev/sda']).toBe(
			'card'
		));
	it('takes what diskutil info adds, and a built-in card slot is a maybe until then', () => {
		const builtIn = fixture('macos-list.txt').replace('disk4 (external', 'disk4 (internal');
		expect(verdicts(builtIn)).toMatchObject({ disk4: 'maybe' });
		expect(disksOf(`${builtIn}\n${fixture('macos-info.txt')}`).find(({ id }) => id === 'disk4')).toMatchObject({
			bus: 'secure digital',
			removable: true,
			sizeBytes: 31914983424
		});
	});
	it('reads numbers in place of words for a bus, and one disk that is no list', () => {
		const [, card] = JSON.parse(/\[[\s\S]*\]/.exec(fixture('windows-disks.txt'))![0]) as Record<string, unknown>[];
		expect(verdicts(JSON.stringify({ ...card, BusType: 7 }))).toEqual({ 1: 'card' });
		expect(verdicts(JSON.stringify({ ...card, BusType: 17 }))).toEqual({ 1: 'never' });
		expect(verdicts(JSON.stringify({ ...card, IsBoot: undefined }))).toEqual({ 1: 'never' });
	});
	it('finds the disks among other things that were printed before and behind them', () => {
		const volume = '[{"DriveLetter":"D","FileSystem":"FAT32","DriveType":"Removable","Note":"] [ {"}]';
		const text = `PS C:\\> Get-Volume | ConvertTo-Json\r\n${volume}\r\nPS C:\\> Get-Disk | ConvertTo-Json\r\n${fixture('windows-disks.txt')}\r\nPS C:\\> [`;
		expect(verdicts(text)).toEqual({ 0: 'never', 1: 'card' });
		expect(verdicts(`user@host [~] $ lsblk\n${fixture('linux-laptop.json')}`)).toMatchObject({ '/dev/sda': 'card' });
		// Disks that were listed one by one are judged together: two that could be the card are both a maybe.
		const [, card] = JSON.parse(/\[[\s\S]*\]/.exec(fixture('windows-disks.txt'))![0]) as Record<string, unknown>[];
		const one = JSON.stringify(card);
		const other = JSON.stringify({ ...card, Number: 2, SerialNumber: '7' });
		expect(verdicts(`${one}\n${one}`)).toEqual({ 1: 'card' });
		expect(verdicts(`${one}\n${other}`)).toEqual({ 1: 'maybe', 2: 'maybe' });
		// A torn listing shows one disk and hides the other: it is refused.
		for (const torn of [`[${one},${other}`, `[${one},${other.slice(0, -1)}]`, `{"blockdevices":[${one}`])
			expect(readDisks(torn), torn).toMatchObject({ ok: false, faults: [{ code: 'disks-unknown' }] });
		expect(readDisks('{"blockdevices":[]}')).toMatchObject({ ok: false, faults: [{ code: 'disks-none' }] });
		// Brackets without end are no listing, and take no time.
		expect(readDisks('['.repeat(200_000))).toMatchObject({ ok: false });
		expect(readDisks('[]'.repeat(50_000))).toMatchObject({ ok: false });
	});
	it('says what to paste when it is something else', () => {
		expect(readDisks('Filesystem 1K-blocks Used')).toMatchObject({ ok: false, faults: [{ code: 'disks-unknown' }] });
		expect(readDisks('{"DriveLetter":"D","FileSystem":"FAT32","DriveType":"Removable"}')).toMatchObject({
			ok: false,
			faults: [{ code: 'disks-volumes' }]
		});
	});
	it('holds no disk with a mounted system for the card, whatever else stands there', () => {
		const mount = fc.constantFrom('/', '/boot', '/boot/efi', '/home', '[SWAP]', '/var/lib', '/usr', '/srv/x', '/data');
		const size = fc.integer({ min: 2e9, max: 9e11 });
		fc.assert(
			fc.property(
				mount,
				size,
				fc.boolean(),
				fc.constantFrom('usb', 'mmc', 'sata', null),
				fc.nat(3),
				(at, bytes, rm, tran, depth) => {
					let inner: object = { name: 'x', size: bytes, type: 'crypt', mountpoints: [null, at] };
					for (let n = 0; n < depth; n++)
						inner = { name: `l${n}`, size: bytes, type: 'lvm', mountpoints: [], children: [inner] };
					const text = JSON.stringify({
						blockdevices: [
							{ name: 'sdz', size: bytes, type: 'disk', mountpoints: [null], rm, ro: false, tran, children: [inner] }
						]
					});
					expect(verdicts(text, { imageBytes: null, cardGb: null })).toEqual({ '/dev/sdz': 'never' });
				}
			)
		);
		fc.assert(fc.property(fc.string({ maxLength: 400 }), (text) => void readDisks(text)));
		const torn = [...['linux-laptop.json', 'macos-list.txt', 'macos-list.plist', 'windows-disks.txt']].map(fixture);
		fc.assert(
			fc.property(
				fc.constantFrom(...torn),
				fc.nat(),
				fc.nat(),
				fc.string({ maxLength: 5 }),
				(text, at, length, put) => {
					const from = at % text.length;
					const read = readDisks(text.slice(0, from) + put + text.slice(from + (length % 40)));
					for (const { disk, verdict } of read.ok ? judgeDisks(read.value.disks, WANTED) : [])
						if (disk.inUse) expect(verdict).toBe('never');
				}
			),
			{ numRuns: 400 }
		);
	});
	describe('never call a disk the card for certain', () => {
		const laptop = (): { blockdevices: Record<string, unknown>[] } =>
			JSON.parse(fixture('linux-laptop.json')) as { blockdevices: Record<string, unknown>[] };
		const cardOf = (change: (listing: ReturnType<typeof laptop>) => void): string | undefined => {
			const listing = laptop();
			change(listing);
			return verdicts(JSON.stringify(listing))['/dev/sda'];
		};
		const named = (listing: ReturnType<typeof laptop>, name: string): Record<string, unknown> =>
			listing.blockdevices.find((device) => device.name === name)!;
		const strip = (key: string) => (listing: ReturnType<typeof laptop>) => {
			const without = (device: Record<string, unknown>): void => {
				delete device[key];
				for (const child of (device.children ?? []) as Record<string, unknown>[]) without(child);
			};
			listing.blockdevices.forEach(without);
		};
		it.each<[string, (listing: ReturnType<typeof laptop>) => void, string]>([
			['as listed, it is', () => {}, 'card'],
			['without any column of mounts', strip('mountpoints'), 'maybe'],
			['with only the disks listed, not what is on them', strip('children'), 'maybe'],
			[
				'with a twin that is in use',
				(listing) =>
					void listing.blockdevices.push({
						...named(listing, 'sda'),
						name: 'sdq',
						children: [{ name: 'sdq1', size: 1, type: 'part', mountpoints: ['/srv/photos'] }]
					}),
				'maybe'
			],
			[
				'with a twin that is free',
				(listing) => void listing.blockdevices.push({ ...named(listing, 'sda'), name: 'sdq' }),
				'maybe'
			],
			[
				'listed twice with other figures',
				(listing) => void listing.blockdevices.push({ ...named(listing, 'sda'), size: 16e9 }),
				'maybe'
			],
			[
				'with a piece of a pool on it',
				(listing) =>
					void Object.assign(named(listing, 'sda'), {
						children: [{ name: 'sda1', size: 1, type: 'part', mountpoints: [null], fstype: 'zfs_member' }]
					}),
				'maybe'
			]
		])('%s: %#', (_, change, verdict) => expect(cardOf(change)).toBe(verdict));
		it('unless every other could be told apart from it, and the listing shows what is in use', () => {
			const device = fc.record(
				{
					name: fc.constantFrom('sda', 'sdb', 'sdc', 'mmcblk0', 'nvme0n1'),
					size: fc.constantFrom(31.9e9, 32e9, 64e9, 5e11),
					type: fc.constant('disk'),
					mountpoints: fc.constantFrom([null], ['/'], ['/media/x/card']),
					rm: fc.boolean(),
					ro: fc.constant(false),
					tran: fc.constantFrom('usb', 'mmc', 'sata', null),
					model: fc.constantFrom('Card Reader', 'Disk', ''),
					serial: fc.constantFrom('1', '2', '')
				},
				{ requiredKeys: ['name', 'size', 'type'] }
			);
			let cards = 0;
			fc.assert(
				fc.property(fc.array(device, { maxLength: 4 }), (blockdevices) => {
					const read = readDisks(JSON.stringify({ blockdevices }));
					for (const { disk, verdict } of read.ok ? judgeDisks(read.value.disks, WANTED) : []) {
						if (verdict !== 'card') continue;
						cards++;
						const listed = [...new Map(blockdevices.map((d) => [JSON.stringify(d), d])).values()];
						const others = listed.filter((d) => `/dev/${d.name}` !== disk.id);
						expect(others).toHaveLength(listed.length - 1);
						expect(
							others.every(
								(d) => (d.model ?? '') !== disk.model || (d.serial ?? '') !== disk.serial || d.size !== disk.sizeBytes
							)
						).toBe(true);
						expect(listed.find((d) => `/dev/${d.name}` === disk.id)!.mountpoints).toBeDefined();
						expect(listed.some((d) => d.mountpoints?.includes('/' as never))).toBe(true);
					}
				}),
				{ numRuns: 3000 }
			);
			expect(cards).toBeGreaterThan(5);
		});
		it('when a twin stayed while one was pulled out', () => {
			const listing = laptop();
			listing.blockdevices.push({ ...named(listing, 'sda'), name: 'sdq', children: [] });
			const all = disksOf(JSON.stringify(listing));
			expect(
				pulledOut(
					all,
					all.filter(({ id }) => id !== '/dev/sda')
				)
			).toBeNull();
		});
	});
	it('refuses names that no such system prints, and listings of two computers', () => {
		for (const name of ['sda; rm -rf ~', '$(id)', '../../x', '-o'])
			expect(readDisks(JSON.stringify({ blockdevices: [{ name, size: 1, type: 'disk' }] }))).toMatchObject({
				ok: false,
				faults: [{ code: 'disks-strange' }]
			});
		const apple = fixture('macos-list.plist').replaceAll('disk4', 'disk4;reboot');
		expect(readDisks(apple)).toMatchObject({ ok: false, faults: [{ code: 'disks-strange' }] });
		expect(readDisks(`${fixture('linux-laptop.json')}\n${fixture('windows-disks.txt')}`)).toMatchObject({
			ok: false,
			faults: [{ code: 'disks-mixed' }]
		});
		expect(
			writeCommands(
				{ ...disksOf(fixture('macos-list.txt'))[0]!, id: 'disk4; reboot' },
				{ path: 'a', form: 'raw', rawBytes: 1 }
			)
		).toEqual([]);
		const deep = `{"blockdevices":[${'{"name":"sda","children":['.repeat(3000)}${']}'.repeat(3000)}]}`;
		expect(readDisks(deep)).toMatchObject({ ok: false, faults: [{ code: 'disks-strange' }] });
	});
	it('chooses none where two could be it, and the pulled one is the difference', () => {
		const two = JSON.parse(fixture('linux-laptop.json')) as { blockdevices: Record<string, unknown>[] };
		two.blockdevices.push({ ...two.blockdevices[1], name: 'sdc', serial: '000000000999', children: [] });
		const text = JSON.stringify(two);
		expect(verdicts(text)).toMatchObject({ '/dev/sda': 'maybe', '/dev/sdc': 'maybe' });
		const all = disksOf(text);
		expect(
			pulledOut(
				all,
				all.filter(({ id }) => id !== '/dev/sdc')
			)?.id
		).toBe('/dev/sdc');
		expect(pulledOut(all, all)).toBeNull();
		expect(pulledOut(all, all.slice(2))).toBeNull();
	});
	it.each([
		['too large for the image', { imageBytes: 64e9, cardGb: 32 }, 'never'],
		['of another size than the plan\u2019s card', { imageBytes: 2e9, cardGb: 64 }, 'maybe']
	])('%s', (_, wanted, verdict) => expect(verdicts(fixture('linux-laptop.json'), wanted)['/dev/sda']).toBe(verdict));
});

describe('the commands', () => {
	const card = disksOf(fixture('linux-laptop.json'))[0]!;
	it('come only after size and model were typed', () => {
		expect(confirmationOf(card)).toBe('31.9 GB Card Reader');
		expect(isConfirmed(' 31.9 gb  card reader ', card)).toBe(true);
		for (const typed of ['', 'yes', '31.9 GB', 'Card Reader', '32 GB Card Reader'])
			expect(isConfirmed(typed, card)).toBe(false);
	});
	it('unmount what is mounted, write, flush, read back, eject', () => {
		const commands = writeCommands(card, { path: '/home/inga/a.img', form: 'raw', rawBytes: 5 });
		expect(commands.map(({ command }) => command.split(' ').slice(0, 2).join(' '))).toEqual([
			'sudo umount',
			'sudo dd',
			'sync; sudo',
			'sudo cmp',
			'sudo eject'
		]);
		expect(commands[0]!.command).toContain("'/dev/sda1'");
		expect(commands[1]!.command).toContain('oflag=direct');
	});
	it('carry any path exactly through the shell', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-dd-'));
		fc.assert(
			fc.property(
				fc
					.stringMatching(/^[^/\u0000\n\r]{1,30}$/u)
					.filter((name) => name.trim() !== '' && name !== '.' && name !== '..'),
				(name) => {
					const path = join(dir, name);
					writeFileSync(path, name);
					const out = join(dir, 'out');
					const [write] = writeCommands({ ...card, volumes: [] }, { path, form: 'raw', rawBytes: null });
					const line = write!.command
						.replace(/^sudo /, '')
						.replace(' oflag=direct', '')
						.replace(`'${card.id}'`, out);
					execFileSync('sh', ['-c', line], { stdio: 'ignore' });
					expect(readFileSync(out, 'utf8')).toBe(name);
				}
			),
			{ numRuns: 40 }
		);
	});
	it('find one’s own folder, which a quoted ~ is not', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-home-'));
		writeFileSync(join(dir, "it's a.img"), 'image');
		const [write] = writeCommands({ ...card, volumes: [] }, { path: "~/it's a.img", form: 'raw', rawBytes: null });
		const out = join(dir, 'out');
		const line = write!.command
			.replace(/^sudo /, '')
			.replace(' oflag=direct', '')
			.replace(`'${card.id}'`, out);
		execFileSync('sh', ['-c', line], { stdio: 'ignore', env: { ...process.env, HOME: dir } });
		expect(readFileSync(out, 'utf8')).toBe('image');
	});
	it('say what must be unpacked by hand, and go on with what was unpacked', () => {
		const windows = disksOf(fixture('windows-disks.txt'))[1]!;
		const macos = disksOf(fixture('macos-list.txt')).find(({ id }) => id === 'disk4')!;
		for (const disk of [windows, macos]) {
			const commands = writeCommands(disk, { path: 'a.img.xz', form: 'xz', rawBytes: null });
			expect(commands.filter(({ command }) => command === '').map(({ what }) => what)).toEqual([
				'Unpack the image first, with a program of your own that knows .xz'
			]);
			expect(commands.some(({ command }) => command.includes('.xz'))).toBe(false);
			expect(commands.some(({ command }) => command.includes('a.img'))).toBe(true);
		}
	});
	const heads = (commands: readonly { command: string }[]) =>
		commands.map(({ command }) => command.split(' ').slice(0, 2).join(' '));
	it('on macOS go to the raw device of the disk, in whole blocks also from a pipe, and eject it as a whole', () => {
		const disk = disksOf(fixture('macos-list.txt')).find(({ id }) => id === 'disk4')!;
		const raw = writeCommands(disk, { path: "/Users/inga/it's.img", form: 'raw', rawBytes: 1024 });
		expect(heads(raw)).toEqual(['diskutil unmountDisk', 'sudo dd', 'sync', 'sudo cmp', 'diskutil eject']);
		expect(raw[1]!.command).toBe(`sudo dd if='/Users/inga/it'\\''s.img' of=/dev/rdisk4 bs=4m`);
		expect(raw[3]!.command).toContain('-n 1024 ');
		const packed = writeCommands(disk, { path: 'a.img.gz', form: 'gzip', rawBytes: null });
		expect(packed[1]!.command).toMatch(/^gzip -dc \S+ \| sudo dd of=\/dev\/rdisk4 obs=4m$/);
		expect(proveCommands(disk).every(({ command }) => !/\brm\b|mkfs/.test(command))).toBe(true);
		for (const { command } of [...raw, ...packed, ...proveCommands(disk)])
			expect(command.match(/disk\d+/g)?.every((name) => name === 'disk4') ?? true).toBe(true);
	});
	it('on Windows clear the one disk, write and compare it by its number, and let go of it at the end', () => {
		const disk = disksOf(fixture('windows-disks.txt')).find(({ id }) => id === '1')!;
		const commands = writeCommands(disk, { path: 'C:\\Images\\a.img', form: 'raw', rawBytes: 1024 });
		expect(heads(commands).slice(0, 2)).toEqual(['Start-Process powershell', 'Clear-Disk -Number']);
		// .NET stands elsewhere than PowerShell does.
		expect(commands[2]!.command).toContain("[IO.File]::OpenRead((Convert-Path -LiteralPath 'C:\\Images\\a.img'))");
		expect(commands.at(-1)!.command).toBe('$in.Close(); $disk.Close()');
		for (const { command } of [...commands, ...proveCommands(disk)]) {
			expect(command.match(/PhysicalDrive\d+/g)?.every((name) => name === 'PhysicalDrive1') ?? true).toBe(true);
			// What is opened is closed: each kind of bracket is.
			for (const [opens, closes] of ['()', '{}', '[]'])
				expect(command.split(opens!).length, command).toBe(command.split(closes!).length);
		}
		expect(proveCommands(disk).map(({ what }) => what)).toHaveLength(4);
	});
	it('prove a card that has its size, and find out one that repeats itself', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-size-'));
		const disk = { ...card, sizeBytes: 9_000_001, volumes: [] };
		const file = join(dir, 'card');
		const [fill, , back] = proveCommands(disk).map(({ command }) =>
			command.replaceAll('sudo ', '').replace(' oflag=direct', '').replaceAll(`'${card.id}'`, file)
		);
		execFileSync('sh', ['-c', fill!], { stdio: 'ignore' });
		expect(execFileSync('sh', ['-c', back!], { encoding: 'utf8' })).toBe('the whole size is there\n');
		const half = readFileSync(file).subarray(0, 4_500_000);
		writeFileSync(file, Buffer.concat([half, half, Buffer.alloc(1)]));
		expect(() => execFileSync('sh', ['-c', back!], { stdio: 'ignore' })).toThrow();
		expect(proveCommands({ ...disk, sizeBytes: null })).toEqual([]);
	});
	it('quote for PowerShell every kind of single quote', () =>
		expect(powerShellQuote("it's \u2018old\u2019")).toBe("'it''s \u2018\u2018old\u2019\u2019'"));
	it('read a packed image without unpacking it first, where the system can', () => {
		const xz = writeCommands(card, { path: 'a.img.xz', form: 'xz', rawBytes: 99 });
		expect(xz.find(({ what }) => what.startsWith('Write'))!.command).toMatch(
			/^xz -dc '?a\.img\.xz'? \| sudo dd iflag=fullblock/
		);
		expect(xz.find(({ what }) => what.startsWith('Read back'))!.command).toContain('cmp -n 99 - ');
		const [, unpack, clear] = writeCommands(disksOf(fixture('windows-disks.txt'))[1]!, {
			path: 'C:\\a.zip',
			form: 'zip',
			rawBytes: 9
		});
		expect(unpack!.command).toContain("'C:\\a.zip'");
		expect(clear!.command).toBe('Clear-Disk -Number 1 -RemoveData -RemoveOEM -Confirm:$false');
	});
});
