/** The brief: what the endpoint must do, and the promises against which the others are judged. */
import type { Link } from '../../link';
import { withUnit } from '../../basics/format';
import { soundAtBestSec } from './soundAtBest';
import { briefSettings, type BriefSettings } from './settings';
import './offers';

/** The first link: what the endpoint is for. */
export const brief: Link<'brief', BriefSettings> = {
	id: 'brief',
	title: 'Brief',
	settings: briefSettings,
	version: 2,
	// Another kind of endpoint can be wished for.
	migrations: { 1: (saved) => saved },
	empty: ({ name, kind }) => ({
		name,
		room: '',
		purpose: '',
		kind,
		video: null,
		soundWithinSec: 45,
		comesBackAlone: true
	}),
	key: 'i',
	place: { column: 'board', row: 0, wires: [{ to: 'parts', carries: 'rule' }] },
	publish: ({ name, kind, video, comesBackAlone }) => ({ endpointName: name, wish: kind, film: video, comesBackAlone }),
	figures: (settings, context) => [
		{
			id: 'promise',
			setting: 'brief.soundWithinSec',
			label: 'Promise',
			text: `sound within ${settings.soundWithinSec}\u2009s`,
			value: settings.soundWithinSec,
			sure: 'exact',
			from: 'You set it.',
			telling: true
		},
		...(soundAtBestSec(context) === null
			? []
			: [
					{
						id: 'at-best',
						setting: 'parts.board' as const,
						label: 'Sound after power, at best',
						text: withUnit(soundAtBestSec(context)!, 1, 's'),
						value: soundAtBestSec(context),
						sure: 'typical' as const,
						from: 'Firmware, kernel, what the player waits for, and its own start. The rehearsal goes through it second by second.'
					}
				])
	]
};
