import { withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import type { Judge } from '../../manifest';
import { NOT_YET } from './notYet';
import { soundAtBestSec } from './soundAtBest';
import type { BriefSettings } from './settings';

const own = changing<BriefSettings>('brief');

/** What the wish itself asks of the other links. */
export function assessBrief(brief: BriefSettings, context: Context): Finding[] {
	const findings: Finding[] = [];
	const missing = NOT_YET[brief.kind];
	if (missing)
		findings.push({
			id: 'brief.not-yet',
			level: 'stop',
			title: 'This kind of endpoint cannot be finished here yet',
			why: `${missing} A card set would not do what you want, so none is written.`,
			setting: 'brief.kind',
			fixes: [{ label: 'Plan it for music', apply: own({ kind: 'music' }) }]
		});
	if (brief.comesBackAlone && context.facts.programme && !context.facts.programme.startAtBoot)
		findings.push({
			id: 'brief.stays-silent',
			level: 'stop',
			title: 'It would stay silent after a power cut',
			why: 'You want it to come back alone, but nothing starts the music when the board starts.',
			setting: 'programme.startAtBoot',
			fixes: [{ label: 'Start at boot', apply: context.change.startAtBoot() }]
		});
	const board = context.part('board', context.facts.parts.board);
	const atBestSec = soundAtBestSec(context);
	if (board && atBestSec !== null) {
		if (atBestSec > brief.soundWithinSec) {
			const enoughSec = Math.ceil(atBestSec / 5) * 5;
			findings.push({
				id: 'brief.too-slow',
				level: 'caution',
				title: `Sound comes after ${withUnit(atBestSec, 0, 's')} at best`,
				why: `You asked for ${withUnit(brief.soundWithinSec, 0, 's')}. Firmware and kernel of ${board.name} take ${withUnit(board.firmwareSec + board.kernelSec, 0, 's')}, the rest is what the player waits for. Choose a faster board, or wait longer.`,
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

export default assessBrief satisfies Judge<BriefSettings>;
