import { expect, it } from 'vitest';
import { readVideoArgument } from '../formats/boot/kernelLine';
import { kernelTiming } from './kernelTimings';
import modes from './fixtures/kernel-6.1-modes.json';

/** Flags of a mode. Source: the kernel's uapi, drm_mode.h. */
const [PLUS_H, PLUS_V, INTERLACED] = [1, 4, 16];

/** Read off a running Linux 6.1 (Debian's 6.1.0-57-amd64, emulated) whose connectors were each given one `video=`. */
it.each(Object.entries(modes))('%s is the mode that a running kernel made', (name, figures) => {
	const { mode } = readVideoArgument(`video=${name}`)!;
	const by = mode!.computed === 'no' ? 'gtf' : mode!.computed;
	const made = kernelTiming({ ...mode!, refreshHz: mode!.refreshHz!, by });
	const [pixelClockKhz, widthPx, hSyncStart, hSyncEnd, hTotal, heightPx, vSyncStart, vSyncEnd, vTotal, flags] = figures;
	expect(made.ok && made.value).toEqual({
		pixelClockKhz,
		widthPx,
		hSyncStart,
		hSyncEnd,
		hTotal,
		heightPx,
		vSyncStart,
		vSyncEnd,
		vTotal,
		hSyncPositive: (flags! & PLUS_H) !== 0,
		vSyncPositive: (flags! & PLUS_V) !== 0,
		interlaced: (flags! & INTERLACED) !== 0
	});
});

it('refuses what leaves no time for a picture, and what the kernel\u2019s own figures run over at', () => {
	const wish = { widthPx: 1280, heightPx: 720, interlaced: false };
	expect(kernelTiming({ ...wish, refreshHz: 2000, by: 'cvt' })).toMatchObject({ faults: [{ code: 'too-fast' }] });
	expect(kernelTiming({ ...wish, heightPx: 300, refreshHz: 24, by: 'cvt' })).toMatchObject({
		faults: [{ code: 'too-slow' }]
	});
	for (let heightPx = 1; heightPx < 3000; heightPx += 7)
		for (const by of ['cvt', 'cvt-rb', 'gtf'] as const)
			for (const refreshHz of [1, 24, 60, 500]) {
				const made = kernelTiming({ widthPx: heightPx, heightPx, interlaced: heightPx % 2 === 0, refreshHz, by });
				if (made.ok) for (const figure of Object.values(made.value)) expect(Number(figure)).toBeLessThan(2 ** 31);
			}
});
