import { endsWithin, NO_NETWORK, SANDBOX } from '../../../files/sandbox';
import { lines, ON_AIR_UNIT, PLAYER_UNIT, rootPath, textFile } from '../../../files/cardFile';
import { wallClockMs } from '../../../formats/systemd/zone';
import { unitText } from '../../../formats/systemd/unit';
import { contentAt, contentHome } from '../../../files/content';
import type { Facts } from '../../../facts';
import type { CardFile, CardLine } from '../../../link/file';
import type { Context } from '../../../link/context';
import { bookOf, programmeBook } from '../../../onAir/book';
import { followed } from '../../../onAir/followed';
import { mayPlay, ON_AIR, RULES_PATH, SUN_PATH, takeOnAir } from './onAirScript';
import { BIN, MAY_PLAY_PATH, MAY_SOUND_PATH, STATE_DIR } from '../service';
import type { Rulebook } from '../../../onAir/onAir';
import type { LineMoment } from '../../../onAir/line';
import { writeRuleLine } from './ruleText';
import { finishes } from '../lists/finish';
import type { ProgrammeSettings } from '../settings';
import { SUN_STEP_MIN, writeSunTable } from '../../../onAir/sun';

const UNITS = '/etc/systemd/system/';

const DAY_MIN = 1440;
const two = (n: number): string => String(n).padStart(2, '0');

/** What the clock of a zone is ahead of UTC by, in winter and in summer, in minutes. */
const offsetsOf = (zone: string): number[] => [
	...new Set(
		[Date.UTC(2026, 0, 1), Date.UTC(2026, 6, 1)].map((at) => Math.round((wallClockMs(zone, at) - at) / 60_000))
	)
];

/**
 * Times of a day at which something may change, as OnCalendar lines; each hour as well, for the clock is put forward and back by whole
 * hours. By the sun: in steps, within the hours in which that may be.
 */
export function changeTimes({ lines: known, sun, zone }: Rulebook): string[] {
	const minutes = new Set<number>();
	const sunny = new Map<number, Set<number>>();
	for (const line of known) {
		const places = ({ by, min }: LineMoment): number[] =>
			by === 'clock'
				? [min]
				: offsetsOf(zone).flatMap((offset) =>
						sun.map(({ riseMin, setMin }) => (by === 'rise' ? riseMin : setMin) + offset + min)
					);
		const byTheSun = line.from.by !== 'clock' || line.until.by !== 'clock';
		const [from, until] = [line.from.min, line.until.min <= line.from.min ? line.until.min + DAY_MIN : line.until.min];
		if (line.everyMin && byTheSun) return ['*-*-* *:*:00'];
		if (line.everyMin)
			for (let at = from; at < until; at += line.everyMin)
				for (const edge of [at, Math.min(until, at + line.forMin)]) minutes.add(edge % DAY_MIN);
		for (const moment of [line.from, line.until])
			for (const at of places(moment)) {
				const minute = ((at % DAY_MIN) + DAY_MIN) % DAY_MIN;
				if (moment.by === 'clock') minutes.add(minute);
				else {
					const shift = minute % SUN_STEP_MIN;
					sunny.set(shift, (sunny.get(shift) ?? new Set()).add(Math.floor(minute / 60)));
				}
			}
	}
	return [
		'*-*-* *:00:00',
		...[...sunny]
			.sort(([a], [b]) => a - b)
			.map(
				([shift, hours]) =>
					`*-*-* ${[...hours]
						.sort((a, b) => a - b)
						.map(two)
						.join(',')}:${two(shift)}/${SUN_STEP_MIN}:00`
			),
		...[...minutes]
			.filter((at) => at % 60 !== 0)
			.sort((a, b) => a - b)
			.map((at) => `*-*-* ${two(Math.floor(at / 60))}:${two(at % 60)}:00`)
	];
}

/** The script takes rules and lists where the latest are. */
const contentEnvironment = (facts: Facts): string =>
	[
		`YPHOS_RULES=${contentAt(facts, RULES_PATH)}`,
		`YPHOS_SUN=${contentAt(facts, SUN_PATH)}`,
		`YPHOS_LISTS=${contentHome(facts)}`
	].join(' ');

/**
 * Rules, the script that follows them, and what starts it: with the board, at each time, and when the clock is set.
 * `volumePercent`: the player's volume where no rule says another.
 */
export function onAirFiles(settings: ProgrammeSettings, context: Context, volumePercent: number): CardFile[] {
	const { rules, quiet, startAtBoot } = settings;
	const follows = followed(settings, context);
	const byPage = context.facts.pageBrowser === true;
	// A page follows the rules by its own clock; what switches the screen asks for them all the same.
	if (byPage ? !follows : rules.length === 0) return [];
	const book = byPage ? programmeBook(settings, context.venue) : bookOf(settings, context.venue);
	const of = (...texts: string[]): CardLine[] => lines('programme.rules', ...texts);
	const places = new Map(rules.map(({ id }, n) => [id, n]));
	return [
		textFile(rootPath(RULES_PATH), 'What is on when, for on-air.sh: the upper line wins.', [
			...of('# list, conditions that must all hold, minutes after midnight, title'),
			...book.lines.flatMap((line) =>
				lines(
					places.has(line.rule) ? `programme.rules.${places.get(line.rule)!}` : 'programme.quiet',
					writeRuleLine(line.show === 'quiet' ? { ...line, show: 'rest' } : line, volumePercent)
				)
			),
			...lines('programme.otherwise', `otherwise ${book.otherwise === 'off' ? 'rest' : book.otherwise}`)
		]),
		...(book.sun.length
			? [
					textFile(
						rootPath(SUN_PATH),
						'Sunrise and sunset by month, from a day on: day/rise/set in minutes after midnight UTC.',
						of(...writeSunTable(book.sun))
					)
				]
			: []),
		textFile(rootPath(`${BIN}on-air.sh`), 'Finds what is on now.', of(...ON_AIR), '0755'),
		textFile(
			rootPath(`${BIN}take-on-air.sh`),
			'Lets the player take what is on now.',
			of(...takeOnAir(byPage ? null : PLAYER_UNIT, startAtBoot, follows, finishes(settings, context))),
			'0755'
		),
		textFile(
			rootPath(MAY_PLAY_PATH),
			'Keeps the player from beginning while nothing is on.',
			of(...mayPlay(quiet.length && !byPage ? MAY_SOUND_PATH : null)),
			'0755'
		),
		textFile(rootPath(`${UNITS}${ON_AIR_UNIT}.service`), 'Finds what is on now.', [
			...of('[Unit]', `Description=${unitText('Finds what is on now')}`, `Before=${PLAYER_UNIT}`),
			...of('', '[Service]', 'Type=oneshot', `ExecStart=${BIN}on-air.sh`, `ExecStartPost=+${BIN}take-on-air.sh`),
			...(context.facts.fetchesContent ? of(`Environment=${contentEnvironment(context.facts)}`) : []),
			...of('User=daemon', `StateDirectory=${STATE_DIR.slice('/var/lib/'.length)}`),
			...of(endsWithin(120), ...SANDBOX, ...NO_NETWORK),
			...of('', '[Install]', 'WantedBy=multi-user.target')
		]),
		textFile(rootPath(`${UNITS}${ON_AIR_UNIT}.timer`), 'Says when something else may be on.', [
			...of('[Unit]', 'Description=Looks for what is on', '', '[Timer]'),
			...of(...changeTimes(book).map((time) => `OnCalendar=${time}`)),
			...of('# A clock that was wrong at the start is put right later.', 'OnClockChange=yes', 'OnTimezoneChange=yes'),
			...of('AccuracySec=1s', '', '[Install]', 'WantedBy=timers.target')
		])
	];
}
