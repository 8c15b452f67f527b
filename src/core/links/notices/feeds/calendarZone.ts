import ICAL from 'ical.js';
import { canonicalTimeZone } from '../../../standards/timeZones';
import { isTimeZone, wallClockMs } from '../../../formats/systemd/zone';

/** A change of the clocks as a file has it: on the wall before it, and how far ahead of UTC the clocks are then. */
interface Change {
	readonly wallMs: number;
	readonly fromMs: number;
	readonly toMs: number;
	/** Each year, on the first or last such weekday of a month and so on; null: this once. */
	readonly yearly: {
		readonly monthIndex: number;
		readonly dayOf: (year: number) => number;
		readonly untilMs: number;
	} | null;
}

const MOST_CHANGES = 60;
/** So often are clocks compared for one file: each time may ask the runtime some thousand times. */
const MOST_COMPARED = 20;
const DAY_MS = 86_400_000;
const WEEKDAYS = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'];
/** Years after an event in which clocks are compared: a rule that differs only later is no rule of the file's. */
const YEARS = 2;

/**
 * One zone of each way in which clocks go today, for files that name a zone as nobody else does. That each zone of the tz database has one
 * that goes as it does is a test.
 */
const EACH_WAY =
	'Europe/London Europe/Paris Europe/Helsinki Europe/Moscow Asia/Kolkata Europe/Chisinau Atlantic/Azores America/New_York America/Chicago America/Denver America/Los_Angeles America/Anchorage America/Adak America/Halifax America/St_Johns America/Havana America/Santiago America/Asuncion America/Nuuk America/Miquelon America/Scoresbysund Africa/Cairo Africa/Casablanca Asia/Jerusalem Asia/Beirut Asia/Gaza Antarctica/Troll Antarctica/Vostok Australia/Sydney Australia/Adelaide Australia/Lord_Howe Australia/Darwin Australia/Eucla Pacific/Auckland Pacific/Chatham Pacific/Norfolk Pacific/Easter Pacific/Marquesas Asia/Kabul Asia/Tehran Asia/Yangon Asia/Kathmandu America/Phoenix Etc/UTC'.split(
		' '
	);
const FIXED = Array.from({ length: 27 }, (_, n) => `Etc/GMT${n === 12 ? '' : n < 12 ? `+${12 - n}` : `-${n - 12}`}`);

/** The days of a month on which a yearly rule may fall, the first or the last of them; null: a rule of another kind. */
function dayOfRule(rule: ICAL.Recur): ((year: number) => number) | null {
	const {
		BYDAY: days = [],
		BYMONTHDAY: dates = [],
		BYMONTH: months = [],
		...others
	} = rule.parts as Record<string, (string | number)[]>;
	if (rule.freq !== 'YEARLY' || rule.interval !== 1 || months.length !== 1 || Object.keys(others).length) return null;
	const month = Number(months[0]) - 1;
	const lengthOf = (year: number): number => new Date(Date.UTC(year, month + 1, 0)).getUTCDate();
	if (days.length === 0 && dates.length === 1) return () => Number(dates[0]);
	const named = /^([+-]?\d)?(SU|MO|TU|WE|TH|FR|SA)$/.exec(String(days[0] ?? ''));
	if (!named || days.length !== 1) return null;
	const weekday = WEEKDAYS.indexOf(named[2]!);
	const onOrAfter = (year: number, date: number): number =>
		date + ((weekday - new Date(Date.UTC(year, month, date)).getUTCDay() + 7) % 7);
	if (dates.length) return named[1] ? null : (year) => onOrAfter(year, Math.min(...dates.map(Number)));
	const nth = Number(named[1] ?? 1);
	return (year) => (nth > 0 ? onOrAfter(year, 1 + 7 * (nth - 1)) : onOrAfter(year, lengthOf(year) + 1 + 7 * nth));
}

const wallOf = ({ year, month, day, hour, minute, second }: ICAL.Time): number =>
	Date.UTC(year, month - 1, day, hour, minute, second);

/** Its changes; null: more of them, or of another kind, than a time zone has. Source: RFC 5545, 3.6.5. */
function changesOf(zone: ICAL.Component): Change[] | null {
	const out: Change[] = [];
	for (const part of [...zone.getAllSubcomponents('standard'), ...zone.getAllSubcomponents('daylight')]) {
		const start: unknown = part.getFirstPropertyValue('dtstart');
		const [fromMs, toMs] = ['tzoffsetfrom', 'tzoffsetto'].map((name) => {
			const offset: unknown = part.getFirstPropertyValue(name);
			return offset instanceof ICAL.UtcOffset ? offset.toSeconds() * 1000 : NaN;
		}) as [number, number];
		if (!(start instanceof ICAL.Time) || Number.isNaN(fromMs + toMs)) return null;
		const rule: unknown = part.getFirstPropertyValue('rrule');
		const dayOf = rule instanceof ICAL.Recur ? dayOfRule(rule) : null;
		if (rule && (!dayOf || (rule as ICAL.Recur).count)) return null;
		const until = rule instanceof ICAL.Recur ? rule.until : null;
		const once = [start, ...part.getAllProperties('rdate').map((known): unknown => known.getFirstValue())];
		for (const time of once) {
			if (!(time instanceof ICAL.Time) || out.length >= MOST_CHANGES) return null;
			out.push({
				wallMs: wallOf(time),
				fromMs,
				toMs,
				yearly:
					dayOf && time === start
						? {
								monthIndex: Number((rule as ICAL.Recur).parts.BYMONTH![0]) - 1,
								dayOf,
								untilMs: until ? wallOf(until) : Infinity
							}
						: null
			});
		}
	}
	return out.length ? out : null;
}

/** The instants of the changes from a year on, the earliest first, with what went before them. */
function instantsOf(changes: readonly Change[], year: number): { utcMs: number; fromMs: number; toMs: number }[] {
	return changes
		.flatMap(({ wallMs, fromMs, toMs, yearly }) => {
			const walls = [wallMs];
			// One year before: what the clocks show as the first one begins.
			for (let y = year - 1; yearly && y <= year + YEARS; y++) {
				const at = Date.UTC(y, yearly.monthIndex, yearly.dayOf(y)) + (((wallMs % DAY_MS) + DAY_MS) % DAY_MS);
				if (at > wallMs && at - fromMs <= yearly.untilMs) walls.push(at);
			}
			return walls.map((wall) => ({ utcMs: wall - fromMs, fromMs, toMs }));
		})
		.sort((a, b) => a.utcMs - b.utcMs);
}

/** Whether the clocks of a known zone go as those of the file, for some years from an event on. */
function goesAs(zone: string, changes: readonly Change[], year: number): boolean {
	const instants = instantsOf(changes, year);
	const aheadMs = (utcMs: number): number => wallClockMs(zone, utcMs) - utcMs;
	const [from, until] = [Date.UTC(year, 0), Date.UTC(year + YEARS, 0)];
	const filesMs = (utcMs: number): number =>
		instants.findLast((change) => change.utcMs <= utcMs)?.toMs ?? instants[0]!.fromMs;
	const asked = instants
		.filter(({ utcMs }) => utcMs >= from && utcMs < until)
		.flatMap(({ utcMs }) => [utcMs - 1000, utcMs]);
	for (let at = from; at < until; at += 10 * DAY_MS) asked.push(at);
	return asked.every((utcMs) => aheadMs(utcMs) === filesMs(utcMs));
}

/**
 * By a file's own name of a zone: the one of the tz database that it means. The name itself, or its end, or what the file says where it
 * lies; else one whose clocks go as the file's rules say in the years after an event. Null: none does.
 */
export function zonesOf(calendar: ICAL.Component, near: string): (name: string, wallMs: number) => string | null {
	const own = new Map(
		calendar.getAllSubcomponents('vtimezone').map((zone) => [String(zone.getFirstPropertyValue('tzid')), zone] as const)
	);
	const known = new Map<string, string | null>();
	let compared = 0;
	const find = (name: string, year: number): string | null => {
		const zone = own.get(name);
		const said = [name, String(zone?.getFirstPropertyValue('x-lic-location') ?? ''), ...endsOf(name)];
		const named = said.map(canonicalTimeZone).find((one) => one !== null && isTimeZone(one));
		if (named) return named;
		const changes = zone ? changesOf(zone) : null;
		if (!changes || ++compared > MOST_COMPARED) return null;
		return [near, ...EACH_WAY, ...FIXED].find((one) => isTimeZone(one) && goesAs(one, changes, year)) ?? null;
	};
	return (name, wallMs) => {
		const year = new Date(wallMs).getUTCFullYear();
		const key = `${year} ${name}`;
		if (!known.has(key)) known.set(key, find(name, year));
		return known.get(key)!;
	};
}

/** "/who.example/2026/Europe/Oslo" ends with a name that others know. */
const endsOf = (name: string): string[] => {
	const parts = name.slice(0, 200).split('/');
	return parts.map((_, n) => parts.slice(n).join('/')).slice(1, 12);
};
