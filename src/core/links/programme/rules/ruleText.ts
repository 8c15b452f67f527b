import { ALWAYS, type LineMoment, type RuleLine, type Span } from '../../../onAir/line';

/** "rise+30", "540". */
const momentText = ({ by, min }: LineMoment): string =>
	by === 'clock' ? String(min) : `${by}${min < 0 ? '-' : '+'}${Math.abs(min)}`;

/** The player's volume so much softer, percent. Source: mpv(1), --volume: cubic. */
const softer = (volumePercent: number, quieterDb: number): string =>
	(volumePercent * 10 ** (-quieterDb / 60)).toFixed(1);

/**
 * A line as on-air.sh reads it: what is shown, conditions, how loud, and the title, which may hold anything but a line break.
 * `volumePercent`: the player's volume otherwise.
 */
export function writeRuleLine(line: RuleLine, volumePercent = 100): string {
	const { days, nth, weekParity, seasons, validFrom, validUntil, only, never, everyMin, forMin, quieterDb } = line;
	return [
		line.show,
		...(days ? [`days=${days.join('')}`] : []),
		...(nth ? [`nth=${nth < 0 ? 'last' : nth}`] : []),
		...(weekParity === null ? [] : [`week=${weekParity}`]),
		...seasons.map(({ from, until }) => `season=${from}-${until}`),
		...(validFrom > ALWAYS.from || validUntil < ALWAYS.until ? [`valid=${validFrom}-${validUntil}`] : []),
		...(only ? [`only=${only.join(',')}`] : []),
		...(never.length ? [`never=${never.join(',')}`] : []),
		...(everyMin ? [`each=${everyMin}-${forMin}`] : []),
		`from=${momentText(line.from)}`,
		`until=${momentText(line.until)}`,
		...(quieterDb ? [`volume=${softer(volumePercent, quieterDb)}`] : []),
		`title=${line.title}`
	].join(' ');
}

const MOMENT = /^(?:(rise|set)([+-]))?(\d+)$/;
function readMoment(text: string): LineMoment | null {
	const [, by, sign, min] = MOMENT.exec(text) ?? [];
	if (min === undefined) return null;
	return { by: (by as 'rise' | 'set' | undefined) ?? 'clock', min: sign === '-' ? -Number(min) : Number(min) };
}
const readSpan = (text: string): Span => {
	const [from, until] = text.split('-').map(Number);
	return { from: from!, until: until! };
};
const numbers = (text: string): number[] => text.split(',').map(Number);

/** A line, and the player's volume as it stands there; "": as otherwise. */
export type ReadLine = RuleLine & { readonly volume: string };

/** A line as it stands in the file of rules; null: a comment. Conditions that on-air.sh does not know it passes over, as we do. */
export function readRuleLine(text: string): ReadLine | 'broken' | null {
	if (text.startsWith('#') || text === '') return null;
	const at = text.indexOf(' title=');
	const [show = '', ...words] = (at < 0 ? text : text.slice(0, at)).split(' ').filter((word) => word !== '');
	const title = at < 0 ? text : text.slice(at + ' title='.length);
	const of = (key: string): string[] =>
		words.filter((word) => word.startsWith(`${key}=`)).map((word) => word.slice(key.length + 1));
	const last = (key: string): string | undefined => of(key).at(-1);
	const from = readMoment(last('from') ?? '');
	const until = readMoment(last('until') ?? '');
	if (!from || !until) return 'broken';
	const valid = readSpan(last('valid') ?? `${ALWAYS.from}-${ALWAYS.until}`);
	const each = readSpan(last('each') ?? '0-0');
	const nth = last('nth');
	const days = last('days');
	const only = last('only');
	const week = last('week');
	return {
		rule: title,
		title,
		show,
		days: days === undefined ? null : [...days].map(Number),
		nth: nth === undefined ? 0 : nth === 'last' ? -1 : Number(nth),
		weekParity: week === undefined ? null : (Number(week) as 0 | 1),
		seasons: of('season').map(readSpan),
		validFrom: valid.from,
		validUntil: valid.until,
		only: only === undefined ? null : numbers(only),
		never: of('never').flatMap(numbers),
		from,
		until,
		everyMin: each.from,
		forMin: each.until,
		quieterDb: 0,
		volume: last('volume') ?? ''
	};
}
