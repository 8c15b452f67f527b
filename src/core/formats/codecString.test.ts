import fc from 'fast-check';
import { expect, it } from 'vitest';
import { readCodecString } from './codecString';

it.each([
	['avc1.640028', 'High, level 4.0', 8, '4:2:0'],
	['avc1.42C01E', 'Constrained Baseline, level 3.0', 8, '4:2:0'],
	['avc3.6E0029', 'High 10, level 4.1', 10, '4:2:0'],
	['avc1.7a0029', 'High 4:2:2, level 4.1', 10, '4:2:2'],
	['hvc1.1.6.L120.90', 'Main, level 4.0', 8, '4:2:0'],
	['hev1.2.4.H153.B0', 'Main 10, level 5.1, high tier', 10, '4:2:0'],
	// As x265 writes 4:2:2 with 10 bits, and 4:4:4 with 8.
	['hev1.4.10.L60.9D.8', 'Range extensions, level 2.0', 10, '4:2:2'],
	['hvc1.4.10.L93.9E.8', 'Range extensions, level 3.1', 8, '4:4:4'],
	['vp09.00.41.08', 'profile 0, level 4.1', 8, '4:2:0'],
	['vp09.02.10.10.01.09.16.09.01', 'profile 2, level 1.0', 10, '4:2:0'],
	['av01.0.09M.10.0.110.09.16.09.0', 'Main, level 4.1', 10, '4:2:0'],
	['av01.1.13H.08.0.000', 'High, level 5.1, high tier', 8, '4:4:4'],
	['mp4a.40.2', 'LC', 8, '4:2:0'],
	['mp4a.40.5', 'HE', 8, '4:2:0'],
	['flac', '', 8, '4:2:0'],
	['avc1.zz', '', 8, '4:2:0'],
	['', '', 8, '4:2:0']
])('%s: %s', (text, words, bitDepth, chroma) => expect(readCodecString(text)).toEqual({ words, bitDepth, chroma }));

it('says something within bounds of anything', () =>
	fc.assert(
		fc.property(
			fc.oneof(
				fc.string(),
				fc
					.array(fc.constantFrom('avc1', 'hvc1', 'vp09', 'av01', 'mp4a', '.', '4', '40', 'L', 'ff', '2'))
					.map((parts) => parts.join(''))
			),
			(text) => {
				const { words, bitDepth } = readCodecString(text);
				expect(words.length).toBeLessThan(80);
				expect(bitDepth).toBeGreaterThanOrEqual(8);
				expect(bitDepth).toBeLessThanOrEqual(16);
			}
		)
	));
