import { writeEdid } from '../../../formats/edid';
import type { Context } from '../../../link/context';
import { refreshHzOf, type VideoTiming } from '../../../standards/videoTiming';
import { vicTiming } from '../../../standards/vicTable';
import { pictureMm } from '../../../standards/legibility';
import type { Edges } from '../../../standards/edges';
import { anyEdge, kernelVideo } from '../edges/overscan';
import type { PictureSettings } from '../settings';
import { panelShape, pictureWay, type PictureWay } from '../way';

/** Where the kernel looks for an EDID that it is given, below /lib/firmware. Source: the kernel's admin-guide, edid.rst. */
export const EDID_FILE = 'edid/yphos.bin';
/** The same on the disk. */
export const EDID_PATH = `/usr/lib/firmware/${EDID_FILE}`;

/** "1920 × 1080 at 50 Hz". */
export function modeInWords(timing: VideoTiming): string {
	const hz = refreshHzOf(timing);
	return `${timing.widthPx} × ${timing.heightPx}${timing.interlaced ? ' interlaced' : ''} at ${Number(hz.toFixed(Math.abs(hz - Math.round(hz)) < 0.005 ? 0 : 2))}\u2009Hz`;
}

/** Whether the endpoint takes what the screen itself prefers, since nobody has asked it what that is. */
const isLeftToScreen = ({ chosen }: PictureWay, { writesEdid }: PictureSettings): boolean =>
	chosen?.from === 'own' && !writesEdid;

/**
 * As the player takes it: by size and rate to two places, which is all that it compares; by size alone where the kernel computes the mode,
 * whose rate then has fractions of its own. Source: mpv 0.35, drm_common.c, setup_mode_preferred(), mode_match().
 */
export function playerMode(settings: PictureSettings, way: PictureWay): string | null {
	const { chosen, output } = way;
	if (!chosen || output === 'ladder' || output === 'flat') return null;
	if (output === 'composite' || isLeftToScreen(way, settings)) return 'preferred';
	const { timing, from } = chosen;
	const size = `${timing.widthPx}x${timing.heightPx}`;
	return from === 'computed' && !settings.writesEdid ? size : `${size}@${refreshHzOf(timing).toFixed(2)}`;
}

/**
 * The kernel's argument for the mode. What is in no list is computed by the kernel: M, and R for less blanking. Where the screen is left its
 * own choice it names no size, only whether the connector is on, and margins.
 */
export function videoArgument(settings: PictureSettings, way: PictureWay): string | null {
	const { chosen } = way;
	if (!chosen || way.output === 'ladder' || way.output === 'flat') return null;
	// Nothing tells its driver that a set is there: only what is on by force is opened. Its one mode is its own affair, and it knows no margins.
	if (way.output === 'composite') return `video=${settings.connector}:e`;
	const { timing, from } = chosen;
	const plain = kernelVideo({
		connector: settings.connector,
		mode: isLeftToScreen(way, settings)
			? null
			: { ...timing, refreshHz: Math.round(refreshHzOf(timing)), interlaced: timing.interlaced },
		forced: settings.whenOff === 'force',
		...(settings.edgesBy === 'kernel' ? { edges: settings.edges } : {})
	});
	if (plain === null) return null;
	// Reduced blanking has its horizontal sync positive, plain CVT its vertical one. Source: VESA CVT 1.1.
	const flags = timing.hSyncPositive ? 'MR' : 'M';
	const isComputed = from === 'computed' && !settings.writesEdid;
	return `video=${isComputed ? plain.replace(/^([^:]+:\d+x\d+)/, `$1${flags}`) : plain}`;
}

/** The EDID that the card brings: the chosen mode first, the screen's size, and sound where it leaves by the same cable. */
export function ownEdid(settings: PictureSettings, context: Context): ReturnType<typeof writeEdid> | null {
	const way = pictureWay(settings, context);
	if (!settings.writesEdid || !way.chosen) return null;
	const panel = panelShape(way);
	const size = panel ? pictureMm(panel) : { widthMm: 0, heightMm: 0 };
	const converter = context.part('converter', context.facts.parts.converter);
	const first = way.chosen.timing;
	const fallback = vicTiming(Math.round(refreshHzOf(first)) === 50 ? 19 : 4)!.timing;
	return writeEdid({
		name: 'YPHOS PLAN',
		widthMm: Math.round(size.widthMm),
		heightMm: Math.round(size.heightMm),
		modes: first.widthPx > fallback.widthPx ? [first, fallback] : [first],
		sound:
			converter?.joint === 'display'
				? { channels: 2, ratesHz: converter.playback.ratesHz.filter((hz) => hz <= 192_000), bits: [16, 24] }
				: null,
		year: 2026
	});
}

/** Parts of the screen that the player leaves free, with as many places as count; null: none. */
export function playerMargins(
	settings: PictureSettings,
	{ chosen }: PictureWay
): Readonly<Record<keyof Edges, string>> | null {
	if (!chosen || settings.edgesBy !== 'player' || !anyEdge(settings.edges)) return null;
	const { widthPx, heightPx } = chosen.timing;
	const part = (cut: number, whole: number): string => String(Number((cut / whole).toFixed(6)));
	const { left, right, top, bottom } = settings.edges;
	return {
		left: part(left, widthPx),
		right: part(right, widthPx),
		top: part(top, heightPx),
		bottom: part(bottom, heightPx)
	};
}
