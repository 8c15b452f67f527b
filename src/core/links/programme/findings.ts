import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { clockOf } from '../../parts/chosen';
import { assessRules } from './rules/assessRules';
import { assessWishes } from './lists/assessWishes';
import type { ProgrammeSettings } from './settings';

const own = changing<ProgrammeSettings>('programme');

/** Whether the list goes on, quiet hours that meet or never end, and the clock they need. */
export const assessProgramme = (settings: ProgrammeSettings, context: Context): Finding[] => [
	...assessEnds(context),
	...assessGone(settings, context),
	...assessQuiet(settings.quiet),
	...assessRules(settings, context),
	...assessWishes(settings, context),
	...assessClock(settings, context)
];

/** A player wants something to play, and somewhere for it to be heard. */
const assessEnds = ({ facts, change }: Context): Finding[] => [
	...(facts.listed === undefined && facts.pages === undefined
		? [
				{
					id: 'programme.no-list',
					level: 'stop' as const,
					title: 'Nothing is listed to be played',
					why: 'The player starts and ends at once, again and again: this endpoint does without sources.',
					setting: 'programme' as const,
					fixes: [
						{ label: 'Add sources', apply: change.use('sources') },
						{ label: 'Do without a programme', apply: change.use('programme', false) }
					]
				}
			]
		: []),
	...(facts.cardId === undefined && facts.picture === undefined
		? [
				{
					id: 'programme.no-output',
					level: 'stop' as const,
					title: 'It plays, and nobody hears or sees it',
					why: 'This endpoint does without sound and without a picture, and nothing else takes what the player gives.',
					setting: 'programme' as const,
					fixes: [
						{ label: 'Add sound', apply: change.use('sound') },
						{ label: 'Do without a programme', apply: change.use('programme', false) }
					]
				}
			]
		: [])
];

/** A stream that is gone: what is wanted then must be there, and somebody must go back. */
function assessGone({ whenGone, loop, shuffle }: ProgrammeSettings, { facts }: Context): Finding[] {
	const { streams = 0, listed = 0, firstFile = null } = facts;
	if (streams === 0) return [];
	const back = { label: 'Go back to it when it is there again', apply: own({ whenGone: 'back' }) };
	if (whenGone === 'file' && firstFile === null)
		return [
			{
				id: 'programme.no-stand-in',
				level: 'caution',
				title: 'No file stands in for the stream',
				why: 'The first file of the list is to play while a stream is gone, and the list has no file. Add one, or let a soft tone say that the stream is gone.',
				setting: 'programme.whenGone',
				fixes: [{ label: 'Give a soft sign', apply: own({ whenGone: 'sign' }) }, back]
			}
		];
	if (whenGone !== 'list' || streams < 2 || listed < 2 || shuffle || loop !== 'list') return [];
	return [
		{
			id: 'programme.not-back',
			level: 'note',
			title: 'A stream that was gone is not gone back to',
			why: 'When one stream breaks off the next one plays, and that has no end: the first is not heard again before the next start.',
			setting: 'programme.whenGone',
			fixes: [back]
		}
	];
}

const assessQuiet = (quiet: ProgrammeSettings['quiet']): Finding[] =>
	quiet.flatMap((hours, index): Finding[] =>
		hours.from !== hours.until
			? []
			: [
					{
						id: `programme.empty-quiet-${index}`,
						level: 'stop',
						title: `Quiet from ${hours.from} to ${hours.until} is no time at all`,
						why: 'Beginning and end are the same minute. Move one of them, or take the line out.',
						setting: `programme.quiet.${index}`,
						fixes: [
							{
								label: 'Take it out',
								apply: own((all) => ({ ...all, quiet: all.quiet.filter((_, n) => n !== index) }))
							}
						]
					}
				]
	);

/** Whoever keeps hours must know the time. */
function assessClock({ quiet, rules }: ProgrammeSettings, context: Context): Finding[] {
	const board = context.part('board', context.facts.parts.board);
	const setting = quiet.length ? 'programme.quiet' : 'programme.rules';
	if ((quiet.length === 0 && rules.length === 0) || !board || board.hasClock || clockOf(context)) return [];
	if (context.facts.way === 'none')
		return [
			{
				id: 'programme.no-clock',
				level: 'stop',
				title: quiet.length ? 'Quiet hours, but no clock' : 'Rules by the hour, but no clock',
				why: `${board.name} forgets the time without power, and without a network nothing tells it. Join a network, add a clock, or leave the hours out.`,
				setting,
				fixes: [
					{ label: 'Use Ethernet', apply: context.change.useWired() },
					...context.drawer
						.flatMap((part) => (part.kind === 'add-on' && part.keepsTime ? [part] : []))
						.slice(0, 1)
						.map((part): Fix => ({ label: `Add ${part.name}`, apply: context.change.addPart(part.id) }))
				]
			}
		];
	// What systemd-timesyncd notes of the time lies below /var/lib. Source: systemd-timesyncd.service(8), /var/lib/systemd/timesync/clock.
	if (context.facts.root === 'overlay')
		return [
			{
				id: 'programme.clock-forgotten',
				level: 'caution',
				title: 'After each start the time is that of the day on which it was set up, until the network tells it',
				why: `${board.name} has no clock of its own, and a read-only root keeps no note of the time either: what goes by the hour, by days or seasons is misjudged until the network is there, by weeks and months. A clock on the header keeps it.`,
				setting: 'card.root',
				fixes: [
					...context.drawer
						.flatMap((part) => (part.kind === 'add-on' && part.keepsTime ? [part] : []))
						.slice(0, 1)
						.map((part): Fix => ({ label: `Add ${part.name}`, apply: context.change.addPart(part.id) })),
					{ label: 'Make the root writable', apply: context.change.makeRootWritable() }
				]
			}
		];
	return [
		{
			id: 'programme.clock-by-network',
			level: 'note',
			title: 'After a power cut the time comes from the network',
			why: `${board.name} has no clock of its own. Until the network tells it, it takes the time at which the power went, so what goes by the hour may be misjudged for a minute.`,
			setting,
			fixes: []
		}
	];
}

export default assessProgramme satisfies Judge<ProgrammeSettings>;
