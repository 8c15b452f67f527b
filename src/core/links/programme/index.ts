/** The programme: when it plays. Starts with the board, goes on for ever, keeps quiet hours. Owns the player's service and options. */
import type { Claim } from '../../claims';
import { entryClaims } from '../../basics/entries';
import { ON_AIR_UNIT, PLAYER_UNIT, SCREEN_UNIT } from '../../files/cardFile';
import { changing } from '../../changes';
import { playsList } from '../../link/wish';
import type { Context } from '../../link/context';
import type { Link } from '../../link';
import { isSaved } from '../../plan/saved';
import { followed, goesDark } from '../../onAir/followed';
import { MAY_PLAY_PATH, MAY_SOUND_PATH, NOW_PATH, playerService, QUIET_BEGINS, QUIET_ENDS } from './service';
import { listFigures } from './lists/listLength';
import { quietInWords, quietHoursPerDay } from './quiet';
import { PLAYER_START_MS, RETRY_MS } from './timing';
import { finishClaims } from './lists/finish';
import { standInClaims } from './lists/standIn';
import { programmeSettings, type ProgrammeSettings } from './settings';
import './offers';

const own = changing<ProgrammeSettings>('programme');

/** Often enough to be soon back, seldom enough to be no burden to the station. */
const LOOK_SEC = 120;

const LOOP = { list: 'begin again', one: 'the same again', once: 'stop' } as const;

/** Where the screen loses its signal whatever plays is stopped before. Source: screen.sh, which says so in the log. */
const SCREEN_IS_OFF = `journalctl --quiet --boot --unit ${SCREEN_UNIT} --output cat | grep "^screen o" | tail -n 1 | grep -qx "screen off"`;

/** It has run, and ended well. Waiting to be begun again it shows how it failed. Source: systemctl(1), show; org.freedesktop.systemd1(5). */
const ENDED_WELL = `{ systemctl show --property=Result ${PLAYER_UNIT} | grep -qx Result=success && ! systemctl show --property=ExecMainExitTimestampMonotonic ${PLAYER_UNIT} | grep -q =0$; }`;

/** The player runs, unless there is a reason why it does not. */
function runsCheck({ rules, quiet, loop }: ProgrammeSettings, { facts }: Context): Claim {
	const byPage = facts.pageBrowser === true;
	const { picture } = facts;
	const losesSignal = picture?.offBy === 'signal' && goesDark(picture);
	const restsBy = byPage ? null : rules.length ? MAY_PLAY_PATH : quiet.length ? MAY_SOUND_PATH : null;
	const isOnce = loop === 'once' && !byPage;
	const reasons = [
		...(restsBy === null ? [] : [rules.length ? 'while something is on' : 'unless it is quiet']),
		...(losesSignal ? ['while the screen is on'] : []),
		...(isOnce ? ['until it has played all'] : [])
	];
	const runs = `systemctl is-active ${PLAYER_UNIT}`;
	const anyOf = [
		...(restsBy === null ? [] : [`! ${restsBy}`]),
		runs,
		...(losesSignal ? [SCREEN_IS_OFF] : []),
		...(isOnce ? [ENDED_WELL] : [])
	];
	return {
		on: 'check',
		from: 'programme',
		what: 'player',
		label: [byPage ? 'the page runs' : 'the player runs', ...reasons].join(', '),
		command: anyOf.length === 1 ? runs : `sh -c '${anyOf.join(' || ')}'`,
		setting: 'programme.startAtBoot'
	};
}

function claims(programme: ProgrammeSettings, context: Context): Claim[] {
	// The page follows the rules by itself, and its link has the service.
	const byPage = context.facts.pageBrowser === true;
	const out: Claim[] = [
		{ on: 'package', from: 'programme', what: 'player', name: 'mpv', setting: 'programme' },
		...(byPage
			? []
			: [playerService(programme, context), ...standInClaims(programme, context), ...finishClaims(programme, context)])
	];
	out.push(
		...entryClaims('programme', 'programme', [
			['programme.startAtBoot', 'Plays by itself after a start', programme.startAtBoot ? 'yes' : 'no'],
			['programme.loop', 'At the end', LOOP[programme.loop]],
			...(programme.quiet.length
				? ([['programme.quiet', 'Quiet hours', programme.quiet.map(quietInWords).join('; ')]] as const)
				: [])
		])
	);
	if (programme.startAtBoot)
		out.push(
			{ on: 'unit', from: 'programme', what: 'player', name: PLAYER_UNIT, setting: 'programme.startAtBoot' },
			{
				on: 'check',
				from: 'programme',
				what: 'player',
				label: 'the player starts with the board',
				command: `systemctl is-enabled ${PLAYER_UNIT}`,
				setting: 'programme.startAtBoot'
			}
		);
	if (programme.startAtBoot) out.push(runsCheck(programme, context));
	return [...out, ...rulesClaims(programme, context, byPage), ...quietClaims(programme, context, byPage)];
}

/** What decides by the hour what is on. */
function rulesClaims(programme: ProgrammeSettings, context: Context, byPage: boolean): Claim[] {
	const out: Claim[] = [];
	const onAirUnits = (['service', 'timer'] as const).map((ending): Claim => ({
		on: 'unit',
		from: 'programme',
		what: 'rules',
		name: `${ON_AIR_UNIT}.${ending}`,
		setting: 'programme.rules'
	}));
	if (programme.rules.length && !byPage)
		out.push(
			...programme.lists.map(({ id, title, items, valid }, n): Claim => ({
				on: 'list',
				from: 'programme',
				what: title || id,
				id,
				title,
				items,
				valid,
				setting: `programme.lists.${n}`
			})),
			...onAirUnits,
			{
				on: 'start',
				of: PLAYER_UNIT,
				from: 'programme',
				what: 'rules',
				after: `${ON_AIR_UNIT}.service`,
				wants: true,
				setting: 'programme.rules'
			},
			{
				on: 'check',
				from: 'programme',
				what: 'rules',
				label: 'what is on is known',
				command: `test -s ${NOW_PATH}`,
				setting: 'programme.rules'
			}
		);
	if (byPage && followed(programme, context)) out.push(...onAirUnits);
	out.push(
		...entryClaims(
			'programme',
			'programme',
			programme.rules.map(({ title, id }) => ['programme.rules', 'Rule', title || id] as const)
		)
	);
	return out;
}

/** What silences the player, and lets it play again. */
function quietClaims(programme: ProgrammeSettings, context: Context, byPage: boolean): Claim[] {
	const out: Claim[] = [];
	if (programme.quiet.length && (!byPage || context.facts.receiving?.quietToo)) {
		out.push({
			on: 'unit',
			from: 'programme',
			what: 'quiet hours',
			name: `${QUIET_BEGINS}.timer`,
			setting: 'programme.quiet'
		});
		if (programme.startAtBoot || context.facts.receiving?.quietToo || followed(programme, context))
			out.push({
				on: 'unit',
				from: 'programme',
				what: 'quiet hours',
				name: `${QUIET_ENDS}.timer`,
				setting: 'programme.quiet'
			});
	}
	return out;
}

/** Entries of a saved list with what they lack. */
const each = (list: unknown, lacks: object): unknown =>
	Array.isArray(list) ? list.map((one: unknown) => (isSaved(one) ? { ...lacks, ...one } : one)) : list;

const LOOPS = { list: 'list again and again', one: 'first entry again and again', once: 'list once' } as const;

/** The link that says when the list plays. */
export const programme: Link<'programme', ProgrammeSettings> = {
	id: 'programme',
	title: 'Programme',
	settings: programmeSettings,
	version: 7,
	migrations: {
		1: (saved) => ({ used: true, ...saved }),
		2: (saved) => ({ whenGone: 'list', lookSec: LOOK_SEC, ...saved }),
		3: (saved) => ({ lists: [], rules: [], otherwise: 'all', ...saved }),
		4: (saved) => ({
			...saved,
			lists: each(saved.lists, { wishes: [] })
		}),
		5: (saved) => ({ ...saved, rules: each(saved.rules, { quieterDb: 0 }), lists: each(saved.lists, { valid: [] }) }),
		6: (saved) => ({ atChange: 'cut', ...saved })
	},
	empty: ({ kind }) => ({
		used: playsList(kind),
		startAtBoot: true,
		loop: 'list',
		shuffle: false,
		quiet: [],
		whenGone: 'list',
		lookSec: LOOK_SEC,
		atChange: 'cut',
		lists: [],
		rules: [],
		otherwise: 'all'
	}),
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'q',
	place: { column: 'content', row: 3, wires: [{ to: 'parts', carries: 'signal' }] },
	publish: ({ used, startAtBoot, shuffle, quiet, lists, rules, otherwise, loop }) => ({
		programme: {
			...{ used, startAtBoot, shuffle, quiet, lists, rules, otherwise, loop },
			quietHoursPerDay: quietHoursPerDay(quiet),
			playerStartMs: PLAYER_START_MS,
			retryMs: RETRY_MS,
			maySound: quiet.length ? MAY_SOUND_PATH : null,
			mayPlay: MAY_PLAY_PATH
		}
	}),
	changes: {
		startAtBoot: () => own({ startAtBoot: true }),
		loop: (how) => own({ loop: how })
	},
	claims,
	figures: (settings, context) => [
		{
			id: 'hours',
			setting: 'programme.quiet',
			label: 'Plays',
			text: settings.startAtBoot
				? settings.rules.length
					? `${settings.rules.length} rule${settings.rules.length > 1 ? 's' : ''}`
					: settings.quiet.length
						? `quiet ${settings.quiet[0]!.from}\u2013${settings.quiet[0]!.until}`
						: 'all day'
				: 'not by itself',
			value: null,
			sure: 'exact',
			from: 'You set it.',
			telling: true
		},
		{
			id: 'loop',
			setting: 'programme.loop',
			label: 'Order',
			text: `${LOOPS[settings.loop]}${settings.shuffle ? ', shuffled' : ''}`,
			value: null,
			sure: 'exact',
			from: 'You set it.'
		},
		...listFigures(settings, context)
	]
};
