import { readVideoArgument, type VideoArgument } from '../../../formats/boot/kernelLine';
import type { Edid } from '../../../formats/edid';
import { kernelTiming } from '../../../standards/kernelTimings';
import { dmtById } from '../../../standards/dmtTable';
import { VICS } from '../../../standards/vicTable';
import { hSyncKhzOf, refreshHzOf, type VideoTiming } from '../../../standards/videoTiming';
import type { BenchScreen } from '../bench';
import { edidOf } from '../way';

/** What the kernel of an endpoint makes of its connector: modes to choose from, and the one that it takes itself. */
export interface KernelModes {
	readonly modes: readonly VideoTiming[];
	/** The one that the screen marks; null: it marks none, or the driver has not got so far. */
	readonly preferred: VideoTiming | null;
	/** The one that the kernel itself shows its console in. */
	readonly console: VideoTiming | null;
}

/** What a connector offers when nothing is said of the screen: up to 1024 × 768, at most 61 Hz. Source: Linux 6.1, drm_add_modes_noedid(). */
const WITHOUT_EDID: readonly VideoTiming[] = [0x10, 0x0e, 0x09, 0x08, 0x04].map((id) => dmtById(id)!.timing);

/**
 * Modes as the kernel lists them: those of the screen, and of each that is one of television's the same a thousandth slower, or faster where
 * the table has the slower one. Source: Linux 6.1, drm_edid.c, add_alternate_cea_modes().
 */
function listedFor(edid: Edid): VideoTiming[] {
	const own = edid.modes.map(asKernelHasIt);
	const others = own.flatMap((timing) => {
		const isOfTelevision = VICS.some(({ timing: known }) => isSameTiming(known, timing));
		// Only rates that divide by six have a brother.
		if (!isOfTelevision || Math.round(refreshHzOf(timing)) % 6 !== 0) return [];
		const isSlower = timing.heightPx === 240 || timing.heightPx === 480;
		const pixelClockKhz = Math.round((timing.pixelClockKhz * (isSlower ? 1001 : 1000)) / (isSlower ? 1000 : 1001));
		return [{ ...timing, pixelClockKhz }];
	});
	return [...own, ...others.filter((timing) => !own.some((one) => isSameTiming(one, timing, 0)))];
}

/** By their number, modes that send each pixel twice are half as wide, with half the clock. Source: Linux 6.1, drm_edid.c, edid_cea_modes_1[]. */
function asKernelHasIt({ timing, from }: Edid['modes'][number]): VideoTiming {
	const isDoubled = from === 'vic' && timing.widthPx === 1440 && (timing.interlaced || timing.heightPx < 300);
	if (!isDoubled) return timing;
	const { widthPx, pixelClockKhz, hSyncStart, hSyncEnd, hTotal } = timing;
	return {
		...timing,
		widthPx: widthPx / 2,
		pixelClockKhz: pixelClockKhz / 2,
		hSyncStart: hSyncStart / 2,
		hSyncEnd: hSyncEnd / 2,
		hTotal: hTotal / 2
	};
}

/** Clocks of two alike modes differ by a thousandth and a rounding. */
const SAME_CLOCK = 0.005;
const FIELDS = [
	'widthPx',
	'heightPx',
	'interlaced',
	'hSyncStart',
	'hSyncEnd',
	'hTotal',
	'vSyncStart',
	'vSyncEnd',
	'vTotal'
] as const;
/** Whether two timings are one, blanking and sync included. */
const isSameTiming = (a: VideoTiming, b: VideoTiming, slack = SAME_CLOCK): boolean =>
	FIELDS.every((field) => a[field] === b[field]) && Math.abs(a.pixelClockKhz / b.pixelClockKhz - 1) <= slack;

type Wanted = NonNullable<VideoArgument['mode']>;
/** A mode of a list by the size and rate that an argument asks for, rates to the whole hertz; interlaced or not is not looked at. Source: Linux 6.1, drm_helper_probe_add_cmdline_mode(). */
const fits = (timing: VideoTiming, wanted: Wanted): boolean =>
	timing.widthPx === wanted.widthPx &&
	timing.heightPx === wanted.heightPx &&
	(wanted.refreshHz === null || Math.round(refreshHzOf(timing)) === wanted.refreshHz);

/** A mode that the kernel computes because no list has it: CVT where it is told so, else GTF. Source: Linux 6.1, drm_mode_create_from_cmdline_mode(). */
function computedFor({ computed, refreshHz, ...wanted }: Wanted): VideoTiming | null {
	const timing = kernelTiming({ ...wanted, refreshHz: refreshHz ?? 60, by: computed === 'no' ? 'gtf' : computed });
	return timing.ok ? timing.value : null;
}

/** The argument for this connector; one that names none is for all. */
export const videoArgumentFor = (words: readonly string[], connector: string): VideoArgument | null =>
	words
		.map(readVideoArgument)
		.findLast((argument) => argument && (argument.connector === null || argument.connector === connector)) ?? null;

/** The largest first, then the fastest, then that with the higher clock. Source: Linux 6.1, drm_modes.c, drm_mode_compare(). */
const inKernelsOrder = (modes: readonly VideoTiming[]): VideoTiming[] =>
	modes.toSorted(
		(a, b) =>
			b.widthPx * b.heightPx - a.widthPx * a.heightPx ||
			Math.round(refreshHzOf(b)) - Math.round(refreshHzOf(a)) ||
			b.pixelClockKhz - a.pixelClockKhz
	);

/** Modes of a connector by what the screen, or a file in its place, says, and by what the kernel is told; none beyond the driver's own limit. */
export function kernelModes(edid: Edid | null, argument: VideoArgument | null, outputMhz = Infinity): KernelModes {
	const goes = ({ pixelClockKhz }: VideoTiming): boolean => pixelClockKhz <= outputMhz * 1000 + 10;
	const listed = inKernelsOrder((edid ? listedFor(edid) : WITHOUT_EDID).filter(goes));
	const preferred = edid?.preferred && goes(edid.preferred) ? edid.preferred : null;
	const wanted = argument?.mode;
	if (!wanted) return { modes: listed, preferred, console: preferred ?? listed[0] ?? null };
	const known = listed.find((timing) => fits(timing, wanted));
	const made = known ? null : computedFor(wanted);
	const own = known ?? (made && goes(made) ? made : null);
	const modes = known || !own ? listed : inKernelsOrder([...listed, own]);
	return { modes, preferred, console: own ?? preferred ?? modes[0] ?? null };
}

/** What the driver of the yellow socket has, and nothing else. Source: Linux 6.1, vc4_vec.c, ntsc_mode. */
export const DRIVERS_TV: VideoTiming = {
	widthPx: 720,
	heightPx: 480,
	interlaced: true,
	pixelClockKhz: 13_500,
	hSyncStart: 720 + 14,
	hSyncEnd: 720 + 14 + 64,
	hTotal: 720 + 14 + 64 + 60,
	vSyncStart: 480 + 7,
	vSyncEnd: 480 + 7 + 6,
	vTotal: 525,
	hSyncPositive: false,
	vSyncPositive: false
};

/** The timing that a device tree's panel has; null: there is none in this text. Source: the kernel's bindings, panel-timing.yaml. */
export function ladderTiming(text: string): VideoTiming | null {
	const node = /panel-timing \{([^}]{1,2000})\}/.exec(text)?.[1];
	if (node === undefined) return null;
	const value = (name: string): number => Number(new RegExp(`\\b${name} = <(\\d{1,10})>`).exec(node)?.[1] ?? 0);
	const along = (axis: 'h' | 'v') => {
		const active = value(`${axis}active`);
		const start = active + value(`${axis}front-porch`);
		const end = start + value(`${axis}sync-len`);
		return { active, start, end, total: end + value(`${axis}back-porch`) };
	};
	const [h, v] = [along('h'), along('v')];
	// Nothing is clocked out without them.
	if (h.active === 0 || v.active === 0 || value('clock-frequency') === 0) return null;
	return {
		widthPx: h.active,
		heightPx: v.active,
		interlaced: false,
		pixelClockKhz: value('clock-frequency') / 1000,
		hSyncStart: h.start,
		hSyncEnd: h.end,
		hTotal: h.total,
		vSyncStart: v.start,
		vSyncEnd: v.end,
		vTotal: v.total,
		hSyncPositive: value('hsync-active') === 1,
		vSyncPositive: value('vsync-active') === 1
	};
}

/** The player's choice among them; a string says why there is none. Source: mpv 0.35, drm_common.c, setup_mode(). */
export function playerChoice(wish: string, { modes, preferred }: KernelModes): VideoTiming | string {
	if (modes.length === 0) return 'the connector has no modes';
	if (wish === '' || wish === 'preferred') return preferred ?? modes[0]!;
	if (wish === 'highest') return modes.reduce((a, b) => (b.widthPx * b.heightPx > a.widthPx * a.heightPx ? b : a));
	if (/^\d+$/.test(wish)) return modes[Number(wish)] ?? `the connector has no mode number ${wish}`;
	const asked = /^(\d+)x(\d+)(?:@([\d.]+))?$/.exec(wish);
	const [, width, height, rate] = asked ?? [];
	const found = modes.find(
		(timing) =>
			timing.widthPx === Number(width) &&
			timing.heightPx === Number(height) &&
			(rate === undefined || Math.round(refreshHzOf(timing) * 100) === Math.round(Number(rate) * 100))
	);
	return found ?? `no mode of the connector is ${wish}`;
}

/** Why a set shows nothing of a mode; null: it shows it. */
export function whyNotTaken(screen: BenchScreen, timing: VideoTiming): string | null {
	const clockMhz = timing.pixelClockKhz / 1000;
	if (clockMhz > screen.wayMhz + 0.01)
		return `the way there ends at ${screen.wayMhz}\u2009MHz, it takes ${clockMhz.toFixed(1)}`;
	const { ranges } = screen;
	if (ranges) {
		const khz = hSyncKhzOf(timing);
		const hz = refreshHzOf(timing);
		if (khz < ranges.hMinKhz - 0.5 || khz > ranges.hMaxKhz + 0.5)
			return `it follows ${ranges.hMinKhz} to ${ranges.hMaxKhz}\u2009kHz, not ${khz.toFixed(1)}`;
		if (hz < ranges.vMinHz - 0.5 || hz > ranges.vMaxHz + 0.5)
			return `it follows ${ranges.vMinHz} to ${ranges.vMaxHz}\u2009Hz, not ${hz.toFixed(1)}`;
		return null;
	}
	const edid = edidOf(screen.edid);
	if (!edid) return null;
	const isAnnounced = edid.modes.some((own) => isSameTiming(asKernelHasIt(own), timing));
	return isAnnounced ? null : 'it is none that the set knows';
}
