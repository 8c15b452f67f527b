import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import { needsCircuit, playLoad } from '../../parts/playLoad';
import { refreshHzOf } from '../../standards/videoTiming';
import { fix } from './change';
import { computeTolerance, ladderOf } from './edges/ladder';
import type { PictureSettings } from './settings';
import { choiceOf, type PictureWay } from './way';
import { modeInWords } from './modes/written';

/** An endpoint that is silent too would be left with nothing at all. */
export const withoutPicture = ({ facts, change }: Context): Fix[] =>
	facts.cardId === undefined ? [] : [{ label: 'Do without a picture', apply: change.use('picture', false) }];

/** Something to be seen must be in the list. */
export function assessContents(context: Context, claims: readonly Claim[]): Finding[] {
	const shown = claimsOn(claims, 'picture');
	if (shown.length > 0 || context.facts.listed === undefined || context.facts.listed === 0) return [];
	return [
		{
			id: 'picture.nothing-to-show',
			level: 'stop',
			title: 'The list holds nothing to be seen',
			why: 'Every entry is sound alone: the screen would stay at the console. Add a film or pictures under Sources.',
			setting: 'sources.items',
			fixes: withoutPicture(context)
		}
	];
}

/** Plain drawing scales each frame with the processor. */
export function assessDrawing(settings: PictureSettings, { facts }: Context): Finding[] {
	const { film } = facts;
	if (settings.draws !== 'plain' || !film || film.widthPx * film.heightPx * film.framesPerSec < 30e6) return [];
	return [
		{
			id: 'picture.draws-plain',
			level: 'note',
			title: 'Every frame of this film is scaled by the processor',
			why: 'Drawn plainly, the player needs no graphics driver and starts at once, but each frame goes through the processor. With the graphics unit, scaling costs nothing; its driver brings 90 MB and some seconds at the start.',
			setting: 'picture.draws',
			fixes: [fix('Draw with the graphics unit', { draws: 'gpu' })]
		}
	];
}

/** Which kernel and programs use which circuit: `decodingTable.ts`, with its sources. */
export function assessDecoding({ board }: PictureWay, { facts }: Context): Finding[] {
	const { film } = facts;
	if (!board || !film || !needsCircuit(board, film)) return [];
	const { share } = playLoad({ ...board, decoders: [] }, film);
	return [
		{
			id: 'picture.circuit-kernel',
			level: 'caution',
			title: 'This film needs the board\u2019s circuit, and a system that uses it',
			why: `Decoding it by the processor alone would take ${(share * 100).toFixed(0)}\u2009% of the board. ${board.name} has a circuit for it, but Debian 12\u2019s own kernel and programs use that of few boards (the table under Picture says which), and then frames are dropped. Start from the Debian image of the board\u2019s maker, or bring the film to a size that the processor manages: Sources offers the command. verify.sh says whether a circuit decodes.`,
			setting: 'brief.video',
			fixes: []
		}
	];
}

/** Drawn plainly, black and white go out as the player decodes them. Source: mpv 0.35, vo_drm.c, which knows no equaliser. */
export const assessLevels = ({ draws, levels }: PictureSettings): Finding[] =>
	draws === 'plain' && levels !== 'auto'
		? [
				{
					id: 'picture.levels-plain',
					level: 'caution',
					title: 'Drawn by the processor, levels are not changed',
					why: 'Only what is drawn with the graphics unit has its black and white brought to the levels that are chosen here; the other way passes over it without a word. Most sets have a setting of their own: black level, or HDMI range.',
					setting: 'picture.levels',
					fixes: [
						fix('Draw with the graphics unit', { draws: 'gpu' }),
						fix('Leave levels to the set', { levels: 'auto' })
					]
				}
			]
		: [];

/** Bytes a second that scanning out costs, beyond which an old board's memory falls behind now and then. Typical. */
const CALM_BYTES_PER_SEC = 250e6;

export function assessLadder({ adapter, chosen, candidates, board }: PictureWay): Finding[] {
	if (!adapter) return [];
	const out: Finding[] = [];
	const { resistorsOhm, tolerancePercent } = adapter;
	if (resistorsOhm.length > 0) {
		const { worstStepV, monotonicGuaranteed, worstStepFromCode } = computeTolerance(
			ladderOf(adapter),
			tolerancePercent
		);
		if (!monotonicGuaranteed)
			out.push({
				id: 'picture.ladder-steps',
				level: 'note',
				title: 'A brighter code may come out darker',
				why: `With resistors of ${tolerancePercent}\u2009% the step after ${worstStepFromCode} may fall by ${(-worstStepV * 1000).toFixed(1)}\u2009mV: gradients show a line there. Resistors of 0.5\u2009% or fewer bits end it; for films it is hardly seen.`,
				setting: 'parts.also',
				fixes: []
			});
	}
	if (!chosen) return out;
	const bytes = (timing: typeof chosen.timing): number => timing.widthPx * timing.heightPx * refreshHzOf(timing) * 4;
	if (board && board.memoryMb <= 1024 && bytes(chosen.timing) > CALM_BYTES_PER_SEC) {
		const calmer = candidates.find(
			({ refused, timing }) => refused.length === 0 && bytes(timing) <= CALM_BYTES_PER_SEC
		);
		out.push({
			id: 'picture.ladder-flicker',
			level: 'caution',
			title: 'The picture may flicker when the board is busy',
			why: `${modeInWords(chosen.timing)} reads ${(bytes(chosen.timing) / 1e6).toFixed(0)}\u2009MB of memory a second, without a pause. On a board of this class decoding takes its share of the same memory, and a line that comes late is seen as a flicker.`,
			setting: 'picture.mode',
			fixes: calmer ? [fix(`Use ${modeInWords(calmer.timing)}`, { mode: choiceOf(calmer) })] : []
		});
	}
	return out;
}
