import { withUnit } from '../../format';
import type { Context, Finding } from '../../link';
import type { Plan } from '../../plan/plan';

/** From the start of the player to its first sample, on any board of these classes. Typical. */
const PLAYER_SEC = 1.5;

export function assessBrief(plan: Plan, context: Context): Finding[] {
	const findings: Finding[] = [];
	const { brief, programme } = plan;
	if (brief.comesBackAlone && !programme.startAtBoot)
		findings.push({
			id: 'brief.stays-silent',
			level: 'stop',
			title: 'It would stay silent after a power cut',
			why: 'You want it to come back alone, but nothing starts the music when the board starts.',
			setting: 'programme.startAtBoot',
			fixes: [
				{ label: 'Start with the board', apply: (p) => ({ ...p, programme: { ...p.programme, startAtBoot: true } }) }
			]
		});
	const board = context.part('board', plan.parts.board);
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
						apply: (p) => ({ ...p, brief: { ...p.brief, soundWithinSec: enoughSec } })
					}
				]
			});
		}
	}
	return findings;
}
