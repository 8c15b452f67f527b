import { withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import { hSyncKhzOf, refreshHzOf, type VideoTiming } from '../../standards/videoTiming';
import { cadenceWords } from './modes/cadence';
import { computeLevels, computeTolerance, ladderOf } from './edges/ladder';
import { contrastIn, legibleSizes, pictureMm, pixelsPerInch } from '../../standards/legibility';
import { computeDelay, totalMs, type DelayShare } from './delay';
import { loopGap } from './loop';
import { activeArea, anyEdge } from './edges/overscan';
import type { PictureSettings } from './settings';
import { modeInWords } from './modes/written';
import { panelShape, pictureWay, type PictureWay } from './way';

/** Light on the glass, lux: of rooms by EN 12464-1; behind a shop window or under a canopy by day, typically, without the sun itself on it. */
export const ROOM_LUX = { dim: 20, room: 200, bright: 1000, daylight: 10_000 } as const;
/** How much of it is thrown back: a matt panel's glass little, a tube's grey phosphor more, the white wall of a projector all. Typical. */
const REFLECTS = { lcd: 0.04, oled: 0.04, tube: 0.1, projector: 1 } as const;
/** White over black of the panel itself, in the dark. Typical. */
export const PANEL_CONTRAST = { lcd: 1000, oled: 100_000, tube: 500, projector: 800 } as const;

/** "1080p, 50 Hz": short enough for the chain. */
const shortMode = ({ chosen }: PictureWay): string => {
	if (!chosen) return 'no mode';
	const { heightPx, widthPx, interlaced } = chosen.timing;
	const size = widthPx * 9 === heightPx * 16 ? `${heightPx}${interlaced ? 'i' : 'p'}` : `${widthPx} × ${heightPx}`;
	return `${size}\u2009${Math.round(refreshHzOf(chosen.timing))}\u2009Hz`;
};

/** What is worked out of the picture, from mode to the smallest letter. */
export function pictureFigures(settings: PictureSettings, context: Context): Figure[] {
	const way = pictureWay(settings, context);
	const { chosen, screen } = way;
	const out: Figure[] = [
		{
			id: 'mode',
			setting: 'picture.mode',
			label: 'Mode',
			text: settings.turn ? `${shortMode(way)}, ${settings.turn}°` : shortMode(way),
			value: chosen ? chosen.timing.heightPx : null,
			sure: way.edid ? 'exact' : 'assumed',
			from: chosen
				? `${modeInWords(chosen.timing)}: ${chosen.reasons.join(', ')}.`
				: 'No mode passes everything on the way.',
			telling: true
		}
	];
	if (!chosen) return out;
	const { timing } = chosen;
	const area = activeArea(timing, settings.edges);
	const [across, down] = settings.turn % 180 === 0 ? [area.widthPx, area.heightPx] : [area.heightPx, area.widthPx];
	out.push(
		{
			id: 'seen',
			setting: 'picture.edges',
			label: 'Left to use',
			text: `${across}\u2009×\u2009${down}`,
			value: area.percent,
			sure: anyEdge(settings.edges)
				? 'measured'
				: screen?.cutsEdges && settings.wholePicture !== 'on'
					? 'assumed'
					: 'exact',
			from: anyEdge(settings.edges)
				? `${area.percent.toFixed(1)}\u2009% of all pixels, after the edges that were read.`
				: 'All of the mode.'
		},
		{
			id: 'clock',
			setting: 'picture.mode',
			label: 'Pixel clock, lines',
			text: `${(timing.pixelClockKhz / 1000).toFixed(2)}\u2009MHz, ${hSyncKhzOf(timing).toFixed(1)}\u2009kHz`,
			value: timing.pixelClockKhz,
			sure: 'exact',
			from: `${timing.hTotal} × ${timing.vTotal} with blanking, ${refreshHzOf(timing).toFixed(3)}\u2009Hz.`
		}
	);
	if (chosen.cadence)
		out.push({
			id: 'cadence',
			setting: 'picture.mode',
			label: 'The film on it',
			text: cadenceWords(chosen.cadence),
			value: chosen.cadence.irregularSeconds,
			sure: 'exact',
			from: `${context.facts.film!.framesPerSec} frames on ${refreshHzOf(timing).toFixed(2)} refreshes a second.`
		});
	return [...out, ...sightFigures(settings, way, timing), ...timeFigures(settings, context), ...ladderFigures(way)];
}

/** What somebody before the set can read. */
function sightFigures(settings: PictureSettings, way: PictureWay, timing: VideoTiming): Figure[] {
	const out: Figure[] = [];
	const { screen } = way;
	const panel = panelShape(way);
	if (panel && screen) {
		const legible = legibleSizes(panel, timing.heightPx, settings.distanceM, settings);
		const size = pictureMm(panel);
		out.push(
			{
				id: 'text',
				setting: 'picture.distanceM',
				label: `Smallest letters from ${settings.distanceM}\u2009m`,
				text: `${legible.fontPx}\u2009px, ${legible.capitalMm.toFixed(0)}\u2009mm high`,
				value: legible.fontPx,
				sure: 'typical',
				from: `Size of the font; a capital is 0.7 of it. Icons from ${legible.iconPx}\u2009px, a code to scan from ${legible.codePx}\u2009px. Source: ISO 9241-303, 5.5.`
			},
			{
				id: 'density',
				setting: 'parts.screen',
				label: 'Pixels an inch',
				text: `${pixelsPerInch(panel, timing.heightPx).toFixed(0)}, picture ${(size.widthMm / 10).toFixed(0)} × ${(size.heightMm / 10).toFixed(0)}\u2009cm`,
				value: pixelsPerInch(panel, timing.heightPx),
				sure: 'typical',
				from: `Diagonal of ${screen.name}.`
			},
			{
				id: 'contrast',
				setting: 'picture.light',
				label: 'Contrast in that light',
				text: `${contrastOf(settings, screen).toFixed(0)} : 1`,
				value: contrastOf(settings, screen),
				sure: 'typical',
				from: `${screen.peakCdM2}\u2009cd/m² against ${ROOM_LUX[settings.light]}\u2009lx, of which it throws back ${REFLECTS[screen.panel] * 100}\u2009%.`
			}
		);
	}
	return out;
}

/** How late a picture comes, and how long none does at the seam. */
function timeFigures(settings: PictureSettings, context: Context): Figure[] {
	const out: Figure[] = [];
	const delay = delayOf(settings, context);
	if (delay.length > 0)
		out.push({
			id: 'delay',
			setting: 'network.way',
			label: 'From the computer to the eye',
			text: withUnit(totalMs(delay), 0, 'ms'),
			value: totalMs(delay),
			sure: 'typical',
			from: `${delay.map(({ what, ms }) => `${what} ${ms.toFixed(0)}`).join(', ')}. A set\u2019s game or computer mode saves most.`
		});
	const gap = loopGap(context);
	if (gap && context.facts.film && !context.facts.receives)
		out.push({
			id: 'gap',
			setting: 'programme.loop',
			label: 'Gap at the seam of the loop',
			text: withUnit(gap.gapMs / 1000, 2, 's'),
			value: gap.gapMs,
			sure: 'typical',
			from: gap.why
		});
	return out;
}

/** What resistors make of a digital output. */
function ladderFigures({ adapter }: PictureWay): Figure[] {
	const out: Figure[] = [];
	if (adapter && adapter.resistorsOhm.length > 0) {
		const ladder = ladderOf(adapter);
		const levels = computeLevels(ladder);
		const worst = computeTolerance(ladder, adapter.tolerancePercent);
		out.push({
			id: 'ladder',
			setting: 'parts.also',
			label: 'White, and its steps',
			text: `${levels.fullScaleV.toFixed(3)}\u2009V, ${adapter.resistorsOhm.length} bits`,
			value: levels.fullScaleV,
			sure: 'typical',
			from: `0.7\u2009V is full white. Steps from ${(levels.smallestStepV * 1000).toFixed(1)} to ${(levels.largestStepV * 1000).toFixed(1)}\u2009mV; with ${adapter.tolerancePercent}\u2009% parts ${worst.monotonicGuaranteed ? 'each is brighter than the one before' : `one may be ${(-worst.worstStepV * 1000).toFixed(1)}\u2009mV darker than the one before`}.`
		});
	}
	return out;
}

/** Mbit/s that a wire and a fair Wi-Fi carry at least. Typical. */
const LINK_BPS = { wired: 94e6, radio: 30e6 } as const;

/** Shares of the delay of what a computer sends; none where nothing is sent. */
export function delayOf(settings: PictureSettings, context: Context): DelayShare[] {
	const { chosen, edid } = pictureWay(settings, context);
	const { receives, way, film } = context.facts;
	if (!receives || !chosen) return [];
	const wired = way !== 'radio';
	return computeDelay({
		framesPerSec: film?.framesPerSec ?? 30,
		refreshHz: refreshHzOf(chosen.timing),
		bitsPerSec: 8_000_000,
		linkBps: wired ? LINK_BPS.wired : LINK_BPS.radio,
		wired,
		setMs: edid?.cta?.hdmi?.videoLatencyMs ?? null
	});
}

/** White over black of this screen in this light. */
export const contrastOf = (
	{ light }: Pick<PictureSettings, 'light'>,
	{ peakCdM2, panel }: { peakCdM2: number; panel: keyof typeof PANEL_CONTRAST }
): number => contrastIn(peakCdM2, peakCdM2 / PANEL_CONTRAST[panel], ROOM_LUX[light], REFLECTS[panel]);
