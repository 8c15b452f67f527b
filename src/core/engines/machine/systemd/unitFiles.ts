import { readExec, readTimeSpanMs, readUnit, type UnitEntry } from '../../../formats/systemd/unit';
import type { Machine } from '../machine';
import { matches } from '../shell/pattern';
import { KNOWN, kindOf } from './known';

const NONE: readonly string[] = [];
/** A unit's settings by their names: values in their order, and the words of all of them. */
type Settings = ReadonlyMap<string, { readonly values: string[]; readonly words: string[] }>;

function settingsOf(entries: readonly UnitEntry[]): Settings {
	const settings = new Map<string, { values: string[]; words: string[] }>();
	for (const { key, value } of entries) {
		const known = settings.get(key) ?? { values: [], words: [] };
		settings.set(key, known);
		if (value) {
			known.values.push(value);
			known.words.push(...value.split(/\s+/));
		} else known.values.length = known.words.length = 0;
	}
	return settings;
}

/** Source: systemd.unit(5), CONDITIONS AND ASSERTS. */
const CONDITIONS: readonly (readonly [string, (disk: Machine['disk'], path: string) => boolean])[] = [
	['ConditionPathExists', (disk, path) => disk.kind(path) !== null],
	['ConditionPathExistsGlob', (disk, path) => globbed(disk, path)],
	['ConditionPathIsDirectory', (disk, path) => disk.kind(path) === 'folder'],
	['ConditionFileNotEmpty', (disk, path) => (disk.read(path) ?? '') !== '' || (disk.get(path)?.bytes?.length ?? 0) > 0],
	['ConditionFileIsExecutable', (disk, path) => disk.isExecutable(path)]
];

/** What units say, read once for each start; a change on the disk counts from the next one, or from daemon-reload. */
export class UnitFiles {
	#entries = new Map<string, UnitEntry[]>();
	#settings = new Map<string, Settings>();
	#judged = new Set<string>();
	readonly #made = new Map<string, Map<string, unknown>>();

	constructor(readonly machine: Machine) {}

	/** Something made of a unit's settings, until they are read anew. */
	made<V>(what: string, name: string, make: () => V): V {
		let of = this.#made.get(what);
		if (!of) this.#made.set(what, (of = new Map()));
		if (!of.has(name)) of.set(name, make());
		return of.get(name) as V;
	}

	forget(): void {
		this.#made.clear();
		this.#entries.clear();
		this.#settings.clear();
	}

	#of(name: string): UnitEntry[] {
		let entries = this.#entries.get(name);
		if (!entries) this.#entries.set(name, (entries = readUnit(this.machine.disk.unit(name)?.text ?? '')));
		return entries;
	}

	/** What of a unit is not simulated is said when it is first read. */
	judge(name: string): void {
		if (this.#judged.has(name)) return;
		this.#judged.add(name);
		if (kindOf(name) === null) this.machine.unknown(`units of the kind of ${name}`);
		for (const { section, key } of this.#of(name))
			if (!KNOWN[section]?.includes(key)) this.machine.unknown(`${key}= in [${section}] of ${name}`);
	}

	/** All values of a setting, in their order; an empty one takes back those before it. */
	values(name: string, key: string): readonly string[] {
		let settings = this.#settings.get(name);
		if (!settings) this.#settings.set(name, (settings = settingsOf(this.#of(name))));
		return settings.get(key)?.values ?? NONE;
	}

	/** The last one counts. */
	value(name: string, key: string): string | undefined {
		return this.values(name, key).at(-1);
	}

	words(name: string, key: string): readonly string[] {
		this.values(name, key);
		return this.#settings.get(name)!.get(key)?.words ?? NONE;
	}

	isOn(name: string, key: string): boolean {
		return /^(?:yes|true|1|on)$/.test(this.value(name, key) ?? '');
	}

	spanMs(name: string, key: string): number | null {
		const value = this.value(name, key);
		return value === undefined ? null : readTimeSpanMs(value);
	}

	/** The variables of a service. What EnvironmentFile= names must be there, unless it begins with "-". */
	environment(name: string): Map<string, string> | string {
		const env = new Map<string, string>();
		const put = (word: string): void => {
			const equals = word.indexOf('=');
			if (equals > 0) env.set(word.slice(0, equals), word.slice(equals + 1));
		};
		for (const line of this.values(name, 'Environment')) for (const word of readExec(line)?.words ?? []) put(word);
		for (const value of this.values(name, 'EnvironmentFile')) {
			const text = this.machine.disk.read(value.replace(/^-/, ''));
			if (text === null && !value.startsWith('-')) return `${value} is not there`;
			for (const line of (text ?? '').split('\n')) if (!line.startsWith('#')) put(line.trim());
		}
		return env;
	}

	/** The first of a unit's conditions that does not hold; null: all do. */
	unmet(name: string): string | null {
		for (const [key, holds] of CONDITIONS)
			for (const value of this.values(name, key))
				if (holds(this.machine.disk, value.replace(/^!/, '')) === value.startsWith('!')) return `${key}=${value}`;
		return null;
	}
}

/** Whether a pattern in the last step of a path matches something. */
export function globbed(disk: Machine['disk'], path: string): boolean {
	const slash = path.lastIndexOf('/');
	return disk.list(path.slice(0, slash) || '/').some((name) => matches(name, path.slice(slash + 1)));
}
