import type { Machine, Process, Teller } from '../../../engines/machine';
import { dayFacts } from '../../../basics/calendar';
import { listPath, OF_DAYS, PLAYER_UNIT } from '../../../files/cardFile';
import { linesOf } from '../../../formats/lines';
import { wallClockMs } from '../../../formats/systemd/zone';
import { onAirAt, type Rulebook } from '../../../onAir/onAir';
import { ON_AIR, RULES_PATH, SUN_PATH } from './onAirScript';
import { readRuleLine, type ReadLine } from './ruleText';
import { BIN, DAYS_PATH, LOUD_PATH, NOW_PATH, STATE_DIR, WHY_PATH } from '../service';
import { readSunTable } from '../../../onAir/sun';
import type { PROGRAMME_WORDS } from '../words';

/** As long as a small board takes for a page of rules. Typical. */
const LOOKS_MS = 40;
const DAY_MS = 86_400_000;

/**
 * What on-air.sh does, by heart: it is run hundreds of times a day. It reads the rules that are on the disk; a script that is another
 * one is said to be left out. That the script does the same is shown in a real shell, by its test.
 */
export function rehearseOnAir(machine: Machine, tell: Teller<typeof PROGRAMME_WORDS>): void {
	const read = reader();
	machine.byHeart.set(`${BIN}on-air.sh`, {
		text: `${ON_AIR.join('\n')}\n`,
		program: (process) => process.after(LOOKS_MS, () => process.exit(look(machine, process, tell, read)))
	});
}

type Read = (
	rules: string,
	sun: string
) => Omit<Rulebook, 'zone'> & { readonly lines: readonly ReadLine[]; readonly broken: boolean };

/** Files are read again only when they have changed. */
function reader(): Read {
	let known: { rules: string; sun: string; book: ReturnType<Read> } | null = null;
	return (rules, sun) => {
		if (known?.rules !== rules || known.sun !== sun) {
			const found: ReadLine[] = [];
			let otherwise = '';
			let broken = false;
			for (const text of linesOf(rules)) {
				const word = /^otherwise(?: (.*))?$/.exec(text);
				if (word) {
					otherwise = word[1] ?? '';
					break;
				}
				const line = readRuleLine(text);
				if (line === 'broken') broken = true;
				else if (line) found.push(line);
			}
			known = { rules, sun, book: { lines: found, otherwise, sun: readSunTable(sun), broken } };
		}
		return known.book;
	};
}

/** A list without the entries of other days, as the script writes it. */
function ofToday(text: string, ymd: number): string {
	let keep = true;
	const out: string[] = [];
	for (const line of text.replace(/\n$/, '').split('\n')) {
		const isEntry = !line.startsWith('#');
		if (line.startsWith(OF_DAYS)) {
			const [from, until] = line.slice(OF_DAYS.length).split('-').map(Number);
			if (ymd < from! || ymd > until!) keep = false;
		} else if (keep || /^#(?:EXTM3U|PLAYLIST:)/.test(line)) out.push(line);
		if (isEntry) keep = true;
	}
	return out.map((line) => `${line}\n`).join('');
}

function look(machine: Machine, process: Process, tell: Teller<typeof PROGRAMME_WORDS>, read: Read): number {
	const { disk } = machine;
	const openAs = (path: string): string | null => {
		const file = disk.get(path);
		if (file && machine.systemd.mayRead(process.unit, file.mode)) return file.text;
		process.err(`cannot open ${path}: ${file ? 'Permission denied' : 'No such file'}\n`);
		return null;
	};
	const rulesPath = process.env.get('YPHOS_RULES') ?? RULES_PATH;
	const sunPath = process.env.get('YPHOS_SUN') ?? SUN_PATH;
	const rules = openAs(rulesPath);
	// A plan that does not go by the sun has no such file.
	const sun = disk.get(sunPath) ? openAs(sunPath) : '';
	if (rules === null || sun === null) return 2;
	const { broken, ...book } = read(rules, sun);
	if (broken) {
		process.err(`${rulesPath}: a line without its times\n`);
		return 2;
	}
	const { show, line } = onAirAt({ ...book, zone: machine.timeZone }, machine.believedUtcMs);
	const listed =
		show === 'rest' || show === ''
			? ''
			: listPath(show).replace('/opt/yphos', process.env.get('YPHOS_LISTS') ?? '/opt/yphos');
	const put = (path: string, text: string): boolean => {
		const why = machine.systemd.mayWrite(process.unit, path) ?? disk.write(path, text, false);
		if (why !== null) process.err(`cannot create ${path}: ${why}\n`);
		return why === null;
	};
	const whole = listed === '' ? null : disk.read(listed);
	const ofDay = whole?.split('\n').some((text) => text.startsWith(OF_DAYS))
		? ofToday(whole, dayFacts(Math.floor(wallClockMs(machine.timeZone, machine.believedUtcMs) / DAY_MS)).ymd)
		: null;
	const isLeft = ofDay === null || ofDay.split('\n').some((text) => text !== '' && !text.startsWith('#'));
	const isOther = ofDay !== null && isLeft && disk.read(DAYS_PATH) !== ofDay;
	if (ofDay !== null && !put(DAYS_PATH, ofDay)) return 2;
	const now = !isLeft ? '' : ofDay === null ? listed : DAYS_PATH;
	if (!put(WHY_PATH, `${line?.title ?? ''}\n`)) return 2;
	const volume = (line as ReadLine | null)?.volume;
	const loud = volume ? `volume=${volume}\n` : '\n';
	if (disk.read(NOW_PATH) === `${now}\n` && disk.read(LOUD_PATH) === loud && !isOther) return 0;
	if (!put(LOUD_PATH, loud) || !put(NOW_PATH, `${now}\n`) || !put(`${STATE_DIR}/changed`, '')) return 2;
	const list = now === '' ? null : disk.read(now);
	const title = /^#PLAYLIST:(.*)$/m.exec(list ?? '')?.[1];
	const isPlayed = machine.disk.unit(PLAYER_UNIT)?.text.includes(NOW_PATH) ?? false;
	// A page says of itself what it shows.
	if (!isPlayed) return 0;
	if (now !== '' && list === null) tell.event('list-gone', 'bad', { path: now });
	else if (now === '') tell.event('rests', 'info', { why: line?.title ?? '' });
	else tell.event('on-air', 'info', { list: title ?? now.slice(now.lastIndexOf('/') + 1), why: line?.title ?? '' });
	return 0;
}
