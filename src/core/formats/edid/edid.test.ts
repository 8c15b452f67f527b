import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { computeTiming } from '../../standards/computedTimings';
import { DMT } from '../../standards/dmtTable';
import { refreshHzOf } from '../../standards/videoTiming';
import { VICS, vicTiming } from '../../standards/vicTable';
import { explainEdid, findEdids, fromBase64, readEdid, toBase64, writeEdid, type WantedEdid } from '.';

const wanted: WantedEdid = {
	name: 'HATCH SET',
	widthMm: 708,
	heightMm: 398,
	modes: [31, 16, 19].map((vic) => vicTiming(vic)!.timing),
	sound: { channels: 2, ratesHz: [44_100, 48_000], bits: [16, 24] },
	year: 2026
};
const written = (want: WantedEdid = wanted): Uint8Array => {
	const bytes = writeEdid(want);
	if (!bytes.ok) throw new Error(bytes.faults[0]!.message);
	return bytes.value;
};
const read = (bytes: Uint8Array) => {
	const edid = readEdid(bytes);
	if (!edid.ok) throw new Error(edid.faults[0]!.message);
	return edid.value;
};
const hex = (bytes: Uint8Array, join = ' '): string =>
	Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join(join);
/** The last byte of a block put right again. */
const resealed = (bytes: Uint8Array, block: number): Uint8Array => {
	const out = bytes.slice();
	const part = out.subarray(128 * block, 128 * block + 127);
	out[128 * block + 127] = (256 - (part.reduce((sum, byte) => sum + byte, 0) & 0xff)) & 0xff;
	return out;
};

describe('an EDID that is written', () => {
	const timings = fc.oneof(
		fc.constantFrom(...VICS.filter(({ timing }) => timing.pixelClockKhz < 600_000).map(({ timing }) => timing)),
		fc.constantFrom(...DMT.map(({ timing }) => timing)),
		fc
			.tuple(fc.integer({ min: 80, max: 320 }), fc.integer({ min: 240, max: 1600 }), fc.integer({ min: 50, max: 85 }))
			.map(([w, heightPx, refreshHz]) => computeTiming('cvt', { widthPx: w * 8, heightPx, refreshHz }))
			.filter((timing) => timing.ok)
			.map((timing) => timing.value)
	);
	it('reads back as it was wanted, whatever modes, size, name and sound', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(timings, { minLength: 1, maxLength: 4 }),
				fc.stringMatching(/^[A-Z][A-Z0-9]{0,12}$/),
				fc.option(fc.integer({ min: 1, max: 8 }), { nil: null }),
				(modes, name, channels) => {
					const sound = channels === null ? null : { channels, ratesHz: [48_000], bits: [16] };
					const bytes = writeEdid({ ...wanted, modes, name, sound });
					if (!bytes.ok) {
						expect(['mode', 'sound']).toContain(bytes.faults[0]!.code);
						return;
					}
					const edid = read(bytes.value);
					expect(edid.blockChecksumOk).toEqual([true, true]);
					expect(edid.name).toBe(name);
					// Clocks go in steps of 10 kHz.
					const clock = (khz: number): number => Math.round(khz / 10) * 10;
					for (const timing of modes.slice(0, 2))
						expect(edid.modes.map((mode) => mode.timing)).toContainEqual({
							...timing,
							pixelClockKhz: clock(timing.pixelClockKhz),
							// Half a line is not said: it follows from being interlaced.
							...(timing.interlaced ? { vTotal: timing.vTotal | 1 } : {})
						});
					expect(edid.preferred?.widthPx).toBe(modes[0]!.widthPx);
					expect(edid.cta?.sound.map((one) => one.maxChannels)).toEqual(channels === null ? [] : [channels]);
				}
			),
			{ seed: 11, numRuns: 300 }
		);
	});
	it.runIf(has('edid-decode'))('passes edid-decode --check', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-edid-'));
		const reduced = computeTiming('cvt-rb', { widthPx: 1280, heightPx: 800, refreshHz: 60 });
		const cases = [
			wanted,
			{ ...wanted, sound: null },
			{ ...wanted, modes: reduced.ok ? [reduced.value] : [] },
			{ ...wanted, modes: [vicTiming(20)!.timing] },
			{ ...wanted, widthMm: 0, heightMm: 0, modes: [DMT[8]!.timing] }
		];
		for (const [n, want] of cases.entries()) {
			const path = join(dir, `${n}.bin`);
			writeFileSync(path, written(want));
			expect(execFileSync('edid-decode', ['--check', path], { encoding: 'utf8' })).toContain('conformity: PASS');
		}
	});
	it('is refused with a reason where it could not say what is wanted', () => {
		const code = (change: Partial<WantedEdid>): string | undefined => {
			const bytes = writeEdid({ ...wanted, ...change });
			return bytes.ok ? undefined : bytes.faults[0]!.code;
		};
		expect(code({ modes: [] })).toBe('no-mode');
		expect(code({ name: 'Größe' })).toBe('name');
		expect(code({ name: 'fourteen chars' })).toBe('name');
		expect(code({ modes: [vicTiming(118)!.timing] })).toBe('mode');
		expect(code({ sound: { channels: 9, ratesHz: [48_000], bits: [16] } })).toBe('sound');
	});
});

describe('an EDID that is read', () => {
	it('is found in every text that tools print it in, with the connector above it', () => {
		const bytes = written();
		const lines = hex(bytes, '').match(/.{32}/g)!;
		const xxd = lines.map(
			(line, n) => `${(16 * n).toString(16).padStart(8, '0')}: ${line.match(/.{4}/g)!.join(' ')}  ..f ab ..`
		);
		const od = lines.map((line, n) => `${(16 * n).toString(8).padStart(7, '0')} ${line.match(/../g)!.join(' ')}`);
		const forms: [string, string, string | null][] = [
			['base64', toBase64(bytes), null],
			['wrapped base64', toBase64(bytes).replace(/.{60}/g, '$&\r\n'), null],
			['a hex dump', hex(bytes), null],
			[
				'C',
				`unsigned char edid[] = {\n${hex(bytes, ', ')
					.replace(/\b(?=\w\w\b)/g, '0x')
					.replace(/(.{60}, )/g, '$1\n')}};`,
				null
			],
			['xxd', `HDMI-A-1:\n${xxd.join('\n')}`, 'HDMI-A-1'],
			['od', od.join('\n'), null],
			['hexdump -C', od.map((line) => `${line.replace(/^0/, '00')}  |...beef|`).join('\n'), null],
			[
				'xrandr --verbose',
				`VGA-1 disconnected\nHDMI-2 connected primary\n\tEDID: \n${lines.map((l) => `\t\t${l}`).join('\n')}\n\tGAMMA: 1`,
				'HDMI-2'
			],
			[
				'a probe report',
				`=== od /sys/class/drm/card1-HDMI-A-2/edid ===\n${lines.map((l) => ` ${l.match(/../g)!.join(' ')}`).join('\n')}\n\n=== lsblk ===`,
				'HDMI-A-2'
			]
		];
		for (const [form, text, connector] of forms) {
			const found = findEdids(new TextEncoder().encode(text), text);
			expect(found.ok && found.value, form).toEqual([{ connector, bytes }]);
		}
		const two = findEdids(new Uint8Array(), `card0-HDMI-A-1\n${hex(bytes)}\ncard0-HDMI-A-2\n${hex(bytes)}`);
		expect(two.ok && two.value.map(({ connector }) => connector)).toEqual(['HDMI-A-1', 'HDMI-A-2']);
		expect(findEdids(bytes, '')).toEqual({ ok: true, value: [{ connector: null, bytes }] });
		expect(findEdids(new Uint8Array(), 'no screen here, be a face of 00ff').ok).toBe(false);
		expect(fromBase64('AAAA=A').ok).toBe(false);
	});
	it('is used as far as it can be, and says what is wrong', () => {
		const bytes = written();
		const codes = (altered: Uint8Array): string[] => read(altered).remarks.map(({ code }) => code);
		expect(codes(bytes)).toEqual([]);
		const flipped = bytes.slice();
		flipped[60] = flipped[60]! ^ 1;
		expect(codes(flipped)).toContain('checksum');
		expect(read(flipped).name).toBe('HATCH SET');
		expect(codes(bytes.slice(0, 128))).toEqual(['missing-blocks']);
		expect(codes(new Uint8Array([...bytes, ...bytes.slice(0, 128)]))).toContain('more-than-announced');
		const small = bytes.slice();
		small[21] = 20;
		expect(codes(resealed(small, 0))).toEqual(['two-sizes']);
		const narrow = bytes.slice();
		narrow[54 + 36 + 6] = 55;
		expect(codes(resealed(narrow, 0))).toContain('beyond-own-ranges');
		const long = bytes.slice();
		long[132] = long[132]! | 0x1f;
		expect(codes(resealed(long, 1))).toContain('block-too-long');
		for (const bad of [new Uint8Array(20), new Uint8Array(128)]) expect(readEdid(bad).ok).toBe(false);
	});
	it('never throws nor hangs on 10 000 damaged blocks, and explains every byte once', () => {
		const bytes = written();
		let seed = 7;
		const random = (below: number): number => (seed = (seed * 1_103_515_245 + 12_345) & 0x7fffffff) % below;
		for (let n = 0; n < 10_000; n++) {
			const damaged = bytes.slice(0, n % 5 === 0 ? random(257) : 256);
			for (let k = 0; k < 1 + random(6); k++)
				if (damaged.length > 8) damaged[8 + random(damaged.length - 8)] = random(256);
			const edid = readEdid(damaged);
			if (edid.ok) for (const { timing } of edid.value.modes) expect(timing.widthPx).toBeGreaterThan(0);
			const meanings = explainEdid(damaged);
			const covered = meanings.reduce((sum, { from, to }) => sum + to - from + 1, 0);
			expect(covered).toBe(damaged.length);
		}
	});
});

describe('tables of timings', () => {
	it.each([
		['CTA-861', VICS.map(({ vic, timing }) => [vic, timing] as const), 154],
		['DMT', DMT.map(({ dmtId, timing }) => [dmtId, timing] as const), 88]
	])('%s has every row once, in order, each a timing that can be', (_, rows, count) => {
		expect(rows.length).toBe(count);
		expect(new Set(rows.map(([id]) => id)).size).toBe(count);
		for (const [, t] of rows) {
			expect(t.widthPx <= t.hSyncStart && t.hSyncStart < t.hSyncEnd && t.hSyncEnd <= t.hTotal).toBe(true);
			expect(t.heightPx <= t.vSyncStart && t.vSyncStart < t.vSyncEnd && t.vSyncEnd <= t.vTotal).toBe(true);
			expect(refreshHzOf(t)).toBeGreaterThan(23.9);
		}
	});
});

function has(tool: string): boolean {
	try {
		execFileSync('which', [tool]);
		return true;
	} catch {
		return false;
	}
}
