import { readVideoArgument, type VideoArgument } from '../../formats/boot/kernelLine';
import type { Edid } from '../../formats/edid';
import { computeTiming } from '../../standards/computedTimings';
import { dmtById } from '../../standards/dmtTable';
import { hSyncKhzOf, refreshHzOf, type VideoTiming } from '../../standards/videoTiming';
import type { BenchScreen } from './bench';
import { edidOf } from './way';

/** What the kernel of an endpoint makes of its connector: modes to choose from, and the one that it takes itself. */
export interface KernelModes {
	readonly modes: readonly VideoTiming[];
	readonly preferred: VideoTiming | null;
}

/** What a connector offers when nothing is said of the screen. Source: Linux 6.1, drm_helper_probe_single_connector_modes(): up to 1024 × 768. */
const WITHOUT_EDID: readonly VideoTiming[] = [0x10, 0x09, 0x04].map((id) => dmtById(id)!.timing);

/** A mode of a list by the size and rate that an argument asks for, rates to the whole hertz. */
const fits = (timing: VideoTiming, wanted: VideoArgument): boolean =>
	timing.widthPx === wanted.widthPx &&
	timing.heightPx === wanted.heightPx &&
	timing.interlaced === wanted.interlaced &&
	(wanted.refreshHz === null || Math.round(refreshHzOf(timing)) === wanted.refreshHz);

/** A mode that the kernel computes because no list has it: CVT where it is told so, else GTF. Source: Linux 6.1, drm_modes.c. */
function computedFor(wanted: VideoArgument): VideoTiming | null {
	const timing = computeTiming(wanted.computed === 'no' ? 'gtf' : wanted.computed, {
		widthPx: wanted.widthPx,
		heightPx: wanted.heightPx,
		refreshHz: wanted.refreshHz ?? 60
	});
	return timing.ok ? timing.value : null;
}

/** The argument for this connector; one that names none is for all. */
export const videoArgumentFor = (words: readonly string[], connector: string): VideoArgument | null =>
	words
		.map(readVideoArgument)
		.findLast((argument) => argument && (argument.connector === null || argument.connector === connector)) ?? null;

/** Modes of a connector by what the screen, or a file in its place, says, and by what the kernel is told. */
export function kernelModes(edid: Edid | null, wanted: VideoArgument | null): KernelModes {
	const listed = edid ? edid.modes.map(({ timing }) => timing) : WITHOUT_EDID;
	if (!wanted) return { modes: listed, preferred: edid?.preferred ?? listed[0] ?? null };
	const known = listed.find((timing) => fits(timing, wanted));
	const own = known ?? computedFor(wanted);
	return { modes: known || !own ? listed : [...listed, own], preferred: own ?? edid?.preferred ?? listed[0] ?? null };
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

/** Clocks of two alike modes differ by a thousandth and a rounding. */
const SAME_CLOCK = 0.005;

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
	const isAnnounced = edid.modes.some(
		({ timing: own }) =>
			own.widthPx === timing.widthPx &&
			own.heightPx === timing.heightPx &&
			own.interlaced === timing.interlaced &&
			Math.abs(own.pixelClockKhz / timing.pixelClockKhz - 1) < SAME_CLOCK
	);
	return isAnnounced ? null : 'it is none that the set knows';
}
