import { z } from 'zod';
import { sentence } from '../../basics/result';
import { BLOCK_BYTES, fromBase64, readEdid, type Edid } from '../../formats/edid';
import { computeCadence, readRate } from './modes/cadence';
import { computeLevels, computeTolerance, MOST_BITS } from './edges/ladder';
import { heightFor } from '../../standards/legibility';
import { computeMargins, kernelVideo } from './edges/overscan';
import { isTurn, matrixForContent, touchMatrix, turnPoint } from './edges/touch';
import { computeTiming, timingName, TIMING_METHODS } from '../../standards/computedTimings';
import { hSyncKhzOf, refreshHzOf, type VideoTiming } from '../../standards/videoTiming';
import { calculation, orInvalid, round, type Calculations } from '../../basics/calculation';

const positive = z.number().positive();
const pixels = z.number().int().min(1).max(16_384);
const count = z.number();
const turn = z.number().refine(isTurn, 'A turn is 0, 90, 180 or 270.');

const modeOf = (timing: VideoTiming): object => ({
	widthPx: timing.widthPx,
	heightPx: timing.heightPx,
	interlaced: timing.interlaced,
	refreshHz: round(refreshHzOf(timing), 3),
	pixelClockKhz: round(timing.pixelClockKhz, 3)
});

function describeEdid(edid: Edid): object {
	const { cta } = edid;
	return {
		readable: true,
		edidVersion: edid.version,
		manufacturer: edid.manufacturer,
		productCode: edid.productCode,
		productName: edid.name,
		year: edid.year,
		digital: edid.digital,
		widthCm: edid.widthCm,
		heightCm: edid.heightCm,
		modes: edid.modes.map(({ timing, from, vic, dmtId }) => ({
			from,
			...modeOf(timing),
			...(vic === undefined ? {} : { vic }),
			...(dmtId === undefined ? {} : { dmtId })
		})),
		preferred: edid.preferred && modeOf(edid.preferred),
		audio: cta?.sound ?? [],
		basicAudio: cta?.basicAudio ?? false,
		underscansIt: cta?.underscansIt ?? false,
		hdmi: cta?.hdmi != null,
		cecPhysicalAddress: cta?.hdmi?.physicalAddress ?? null,
		speakers: cta?.speakers ?? [],
		blockChecksumOk: edid.blockChecksumOk,
		checksumOk: edid.blockChecksumOk.every(Boolean),
		blocksPresent: edid.blockChecksumOk.length,
		extensionBlocks: edid.extensionBlocks,
		ranges: edid.ranges,
		remarks: edid.remarks.map(({ message }) => message)
	};
}

/** The picture's calculations, in the shapes of the check values. */
export default {
	modeline: calculation(
		z.object({
			method: z.enum(TIMING_METHODS),
			hActivePx: pixels,
			vActiveLines: pixels,
			refreshHz: z.number().min(1).max(1000)
		}),
		({ method, hActivePx, vActiveLines, refreshHz }) => {
			const wanted = { widthPx: hActivePx, heightPx: vActiveLines, refreshHz };
			return orInvalid(computeTiming(method, wanted), (exact) => {
				// The tool prints two places of a megahertz, and the rates follow from what it prints.
				const timing =
					method === 'gtf' ? { ...exact, pixelClockKhz: Math.round(exact.pixelClockKhz / 10) * 10 } : exact;
				const { widthPx, heightPx, interlaced, pixelClockKhz, ...rest } = timing;
				void interlaced;
				return {
					name: timingName(method, { widthPx, heightPx, refreshHz }),
					pixelClockKhz: round(pixelClockKhz, 3),
					hDisplay: widthPx,
					vDisplay: heightPx,
					...rest,
					hSyncKhz: round(hSyncKhzOf(timing), 3),
					refreshHz: round(refreshHzOf(timing), 3)
				};
			});
		}
	),

	edid: calculation(z.object({ edidBase64: z.string() }), ({ edidBase64 }) => {
		const bytes = fromBase64(edidBase64);
		if (!bytes.ok) return { readable: false, reason: sentence(bytes.faults) };
		// A block that is cut inside is not read here; the app uses what is whole, and says what is missing.
		if (bytes.value.length % BLOCK_BYTES !== 0)
			return { readable: false, reason: `${bytes.value.length} bytes are no whole number of blocks.` };
		const edid = readEdid(bytes.value);
		return edid.ok ? describeEdid(edid.value) : { readable: false, reason: sentence(edid.faults) };
	}),

	vgaLadder: calculation(
		z.object({
			kind: z.enum(['codes', 'tolerance']),
			resistorsOhm: z.array(positive).min(1).max(MOST_BITS),
			logicV: positive,
			loadOhm: positive,
			tolerancePercent: z.number().min(0).lt(100).default(0)
		}),
		({ kind, tolerancePercent, ...ladder }) => {
			if (kind === 'tolerance') return computeTolerance(ladder, tolerancePercent);
			return computeLevels(ladder);
		}
	),

	overscan: calculation(
		z.discriminatedUnion('kind', [
			z.object({
				kind: z.literal('margins'),
				connector: z.string().min(1),
				widthPx: pixels,
				heightPx: pixels,
				refreshHz: positive,
				interlaced: z.boolean().default(false),
				firstVisibleLeftPx: count,
				firstVisibleRightPx: count,
				firstVisibleTopPx: count,
				firstVisibleBottomPx: count
			}),
			z.object({
				kind: z.literal('textHeight'),
				diagonalInch: positive,
				aspectWidth: positive,
				aspectHeight: positive,
				widthPx: pixels,
				heightPx: pixels,
				viewingDistanceM: positive,
				angleArcmin: positive
			}),
			z.object({
				kind: z.enum(['touchMatrix', 'touchPoint']),
				touchTurnClockwiseDeg: turn.optional(),
				contentTurnClockwiseDeg: turn.optional(),
				x: z.number().min(0).max(1).optional(),
				y: z.number().min(0).max(1).optional()
			})
		]),
		(input) => {
			if (input.kind === 'margins') {
				const edges = {
					left: input.firstVisibleLeftPx,
					right: input.firstVisibleRightPx,
					top: input.firstVisibleTopPx,
					bottom: input.firstVisibleBottomPx
				};
				return orInvalid(computeMargins(input, edges), (area) => ({
					marginLeftPx: edges.left,
					marginRightPx: edges.right,
					marginTopPx: edges.top,
					marginBottomPx: edges.bottom,
					activeWidthPx: area.widthPx,
					activeHeightPx: area.heightPx,
					activeAreaPercent: round(area.percent, 4),
					aspectErrorPercent: round(area.aspectErrorPercent, 4),
					kernelVideo: kernelVideo({ connector: input.connector, mode: input, edges })
				}));
			}
			if (input.kind === 'textHeight') {
				const panel = { diagonalIn: input.diagonalInch, ...input };
				const seen = heightFor(panel, input.heightPx, input.viewingDistanceM, input.angleArcmin);
				return {
					screenHeightMm: round(seen.screenHeightMm, 3),
					textHeightMm: round(seen.heightMm, 4),
					textHeightPx: round(seen.heightPx, 3),
					textHeightPxWhole: Math.ceil(seen.heightPx)
				};
			}
			const { touchTurnClockwiseDeg, contentTurnClockwiseDeg } = input;
			if ((touchTurnClockwiseDeg === undefined) === (contentTurnClockwiseDeg === undefined))
				throw new TypeError('touchTurnClockwiseDeg or contentTurnClockwiseDeg: one of them is needed');
			const matrix =
				touchTurnClockwiseDeg === undefined
					? matrixForContent(contentTurnClockwiseDeg!)
					: touchMatrix(touchTurnClockwiseDeg);
			if (input.kind === 'touchPoint') return turnPoint(matrix, input.x ?? 0, input.y ?? 0);
			const corner = (x: number, y: number): number[] => Object.values(turnPoint(matrix, x, y));
			return { matrix, topLeftGoesTo: corner(0, 0), topRightGoesTo: corner(1, 0) };
		}
	),

	judder: calculation(z.object({ contentFps: z.string(), displayHz: z.string() }), ({ contentFps, displayHz }) => {
		const content = readRate(contentFps);
		const display = readRate(displayHz);
		if (!content.ok || !display.ok)
			return {
				valid: false,
				reason: sentence([...(content.ok ? [] : content.faults), ...(display.ok ? [] : display.faults)])
			};
		const { repeatPattern, ...cadence } = computeCadence(content.value, display.value);
		return { ...cadence, ...(repeatPattern ? { repeatPattern } : {}) };
	})
} satisfies Calculations;
