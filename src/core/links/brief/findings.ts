import { withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context, Finding } from '../../link';
import type { BriefSettings } from './settings';

const own = changing<BriefSettings>('brief');

/** From the start of the player to its first sample, on any board of these classes. Typical. */
const PLAYER_SEC = 1.5;

/** What the wish itself asks of the other links. */
export function assessBrief(brief: BriefSettings, context: Context): Finding[] {
	const findings: Finding[] = [];
	if (brief.comesBackAlone && context.facts.programme && !context.facts.programme.startAtBoot)
		findings.push({
			id: 'brief.stays-silent',
			level: 'stop',
			title: 'It would stay silent after a power cut',
			why: 'You want it to come back alone, but nothing starts the music when the board starts.',
			setting: 'programme.startAtBoot',
			fixes: [{ label: 'Start with the board', apply: context.change.startAtBoot() }]
		});
	const board = context.part('board', context.facts.parts.board);
	if (board) {
		const atBestSec = board.firmwareSec + board.kernelSec + board.servicesSec + PLAYER_SEC;
		if (atBestSec > brief.soundWithinSec) {
			const enoughSec = Math.ceil(atBestSec / 5) * 5;
			findings.push({
				id: 'brief.too-slow',
				level: 'caution',
				title: `Sound comes after ${withUnit(atBestSec, 0, 's')} at best`,
				why: `You asked for ${withUnit(brief.soundWithinSec, 0, 's')}. ${board.name} alone needs longer to start. Choose a faster board, or wait longer.`,
				setting: 'brief.soundWithinSec',
				fixes: [
					{
						label: `Allow ${enoughSec}\u2009s`,
						apply: own({ soundWithinSec: enoughSec })
					}
				]
			});
		}
	}
	return findings;
}
