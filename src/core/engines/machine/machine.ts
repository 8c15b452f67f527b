import { parse } from 'yaml';
import type { ParseYaml } from '../../formats/seed/networkConfig';
import type { Bench } from './bench';
import { VirtualClock } from './clock';
import type { CardTree, Disk } from './disk';
import type { Foreseen } from './foresee';
import type { Program } from './processes';
import { addFilePrograms } from './programs/files';
import { addSystemPrograms } from './programs/system';
import { addWebPrograms, type WebAnswer } from './programs/web';
import type { Offers, Signals } from './signals';
import { startSystemd, type Systemd } from './systemd';
import type { EventKind, Said, TimelineEvent, TrackKind, Words } from './timeline';
import { LiveTrack } from './track';
import { World } from './world';
import type { SYSTEM_WORDS } from './words';
import { wallClockMs } from '../../formats/systemd/zone';

/** From joining a network to the right time. Typical. */
const TIME_TAKEN_MS = 1500;
/** Of whoever is asked for by a name of the home, or of the internet. Source: RFC 1918; a number that is nobody's near. */
const NEAR_NUMBER = '192.168.40.9';
const PUBLIC_NUMBER = '203.0.113.9';
/** Nobody looks further back. */
const KEPT_LINES = 200;

/** What a machine is made of. */
interface MachineOptions {
	readonly card: CardTree;
	readonly disk: Disk;
	readonly bench: Bench;
	/** Wall clock at mains on, ms UTC. */
	readonly startUtcMs: number;
	/** The endpoint's own time zone, as its files set it. */
	readonly timeZone: string;
	readonly tracks?: readonly TrackKind[];
}

/** A script that loops for ever, or is run hundreds of times a day: what it does, as long as its text on the disk is this. */
interface ByHeart {
	readonly text: string;
	readonly program: Program;
	/** Whether it would look, and do nothing; absent: nobody knows. */
	readonly idles?: () => boolean;
}

/** The simulated endpoint: a disk, a bench, a clock, and a timeline of what happens. It never sees the plan. */
export class Machine {
	/** For links that read YAML: they are in every page, the package is not. */
	readonly parseYaml: ParseYaml = parse;
	readonly clock = new VirtualClock();
	readonly offers: Offers = {};
	/** Stand-ins for other people's programs, by the path at which a package brings them. */
	readonly programs = new Map<string, Program>();
	/** By their path. */
	readonly byHeart = new Map<string, ByHeart>();
	/** What can be fetched: each is asked in turn, and gives null for an address that is not its own. */
	readonly web: ((address: string) => WebAnswer | null)[] = [];
	/** What units have written to the log since power came, the latest last. */
	readonly journal: { readonly utcMs: number; readonly unit: string | null; readonly text: string }[] = [];
	/** Counts what changes of all that a script could look at. */
	readonly world = new World();
	/** Scripts that only look and wait, with what came of them while the world was as it was. */
	readonly foreseen = new Map<string, { readonly version: number; readonly result: Foreseen | null }>();
	/** How often in a row a script of a unit was looked through ahead, and did more than look and wait. */
	readonly foreseenInVain = new Map<string, number>();
	/** What is taken for granted because nobody has told. */
	readonly assumed = new Set<string>();
	/** What was met and cannot be simulated. */
	readonly notRehearsed = new Set<string>();
	readonly events: TimelineEvent[] = [];
	readonly tracks: ReadonlyMap<string, LiveTrack>;
	readonly activeFaults = new Set<string>();
	/** What cannot work on this bench: parts by their id, devices by the kernel's name for them. */
	readonly absent = new Set<string>();
	/** Modules that its kernel has loaded since power came. */
	readonly modules = new Set<string>();
	readonly card: CardTree;
	readonly disk: Disk;
	readonly bench: Bench;
	readonly startUtcMs: number;
	readonly timeZone: string;
	powered = false;
	/** It goes on counting time while there is no power. */
	keepsTime = false;
	/** Where it keeps the time is forgotten at each restart: it begins with the moment at which it was set up. */
	forgetsTime = false;
	/** How far its own clock is behind the world's, ms; the network puts it right. */
	clockBehindMs = 0;
	/** Counts how often the clock was set. */
	timeJumps = 0;
	/** When the kernel last handed over. */
	userspaceAtMs = 0;
	/** Whether anything beyond the endpoint itself can be reached. */
	online = false;
	systemd: Systemd;
	#boot = 0;
	#offSinceMs = 0;
	#said = new Set<string>();
	#onTimeSet: (() => void)[] = [];
	#listeners = new Map<keyof Signals, ((data: never) => void)[]>();

	constructor({ card, disk, bench, startUtcMs, timeZone, tracks = [] }: MachineOptions) {
		this.card = card;
		this.disk = disk;
		this.bench = bench;
		this.startUtcMs = startUtcMs;
		this.timeZone = timeZone;
		this.tracks = new Map(tracks.map((kind) => [kind.id, new LiveTrack(kind)]));
		this.disk.onChange = () => this.world.changed();
		this.disk.now = () => this.clock.nowMs;
		addFilePrograms(this);
		addSystemPrograms(this);
		addWebPrograms(this);
		this.systemd = startSystemd(this);
	}

	/** Another at each start. Source: random(4), boot_id. */
	get bootId(): string {
		return `${this.startUtcMs}-${this.#boot}`;
	}

	/** The number behind a host's name, as somebody on this network is told it: of a documentation range, or near; null: nobody knows it. */
	numberOf(host: string): string | null {
		if (/^[\d.]+$|:/.test(host)) return host;
		if (!this.online) return null;
		return /\.local$|^[^.]+$/.test(host) ? NEAR_NUMBER : PUBLIC_NUMBER;
	}

	/** So often was something asked for that is not simulated. */
	unknowns = 0;

	/** Says once that something is not simulated. */
	unknown(what: string): void {
		this.unknowns++;
		if (this.notRehearsed.has(what)) return;
		this.notRehearsed.add(what);
		this.say('not-rehearsed', 'info', { what });
	}

	/** What the machine itself has to tell. */
	say<C extends keyof typeof SYSTEM_WORDS>(
		code: C,
		kind: EventKind,
		...[data]: Parameters<(typeof SYSTEM_WORDS)[C]>
	): void {
		this.tell({ from: 'system', code, data }, kind);
	}

	tell(said: Said, kind: EventKind): void {
		this.events.push({ atMs: this.clock.nowMs, kind, ...said });
	}

	/** A unit writes a line to the log, which keeps the last of them. */
	log(unit: string | null, text: string): void {
		this.journal.push({ utcMs: this.believedUtcMs, unit, text });
		if (this.journal.length > KEPT_LINES) this.journal.shift();
	}

	/** What goes wrong at every attempt is said at the first. */
	once<C extends keyof typeof SYSTEM_WORDS>(code: C, ...[data]: Parameters<(typeof SYSTEM_WORDS)[C]>): void {
		const key = JSON.stringify([code, data]);
		if (this.#said.has(key)) return;
		this.#said.add(key);
		this.tell({ from: 'system', code, data }, 'bad');
	}

	/** The endpoint's own wall clock, as a reading in UTC. */
	get wallClockMs(): number {
		return wallClockMs(this.timeZone, this.believedUtcMs);
	}

	/** What it takes for the time. */
	get believedUtcMs(): number {
		return this.nowUtcMs - this.clockBehindMs;
	}

	/** Somebody told it the time. Source: systemd-timesyncd.service(8). */
	setTime(): void {
		if (this.clockBehindMs === 0) return;
		this.clockBehindMs = 0;
		this.timeJumps++;
		const listeners = this.#onTimeSet;
		this.#onTimeSet = [];
		for (const run of listeners) run();
	}

	/** Until the next start. */
	onTimeSet(run: () => void): void {
		const boot = this.#boot;
		const again = (): void => {
			if (boot !== this.#boot) return;
			this.#onTimeSet.push(again);
			run();
		};
		this.#onTimeSet.push(again);
	}

	get nowUtcMs(): number {
		return this.startUtcMs + this.clock.nowMs;
	}

	/** Counts switching on and off: what was begun under another number is over. */
	get boot(): number {
		return this.#boot;
	}

	on<S extends keyof Signals>(signal: S, run: (data: Signals[S]) => void): void {
		this.#listeners.set(signal, [...(this.#listeners.get(signal) ?? []), run as (data: never) => void]);
	}

	emit<S extends keyof Signals>(signal: S, ...[data]: Signals[S] extends void ? [] : [Signals[S]]): void {
		for (const run of this.#listeners.get(signal) ?? []) run(data as never);
	}

	/** Runs later, unless the power has gone meanwhile. */
	after(ms: number, run: () => void): void {
		const boot = this.#boot;
		this.clock.at(this.clock.nowMs + ms, () => {
			if (boot === this.#boot) run();
		});
	}

	/** Reachable, or not any more. */
	setOnline(on: boolean): void {
		if (on === this.online) return;
		this.online = on;
		this.world.changed();
		if (on) {
			this.systemd.reach('network-online.target');
			this.after(TIME_TAKEN_MS, () => {
				if (this.online) this.setTime();
			});
		}
		this.emit(on ? 'online' : 'offline');
	}

	/** Something is broken, or whole again. */
	fault(name: string, on: boolean): void {
		if (on) this.activeFaults.add(name);
		else this.activeFaults.delete(name);
		this.world.changed();
		this.emit('fault', { name, on });
	}

	mains(on: boolean, abrupt = false): void {
		if (on === this.powered) return;
		this.#boot++;
		this.powered = on;
		this.online = false;
		this.#said.clear();
		this.modules.clear();
		this.journal.length = 0;
		this.#onTimeSet = [];
		// Without a clock of its own it goes on from the moment at which it stopped. Source: systemd-timesyncd.service(8).
		if (!on) this.#offSinceMs = this.clock.nowMs;
		else if (this.forgetsTime && !this.keepsTime && this.#boot > 0)
			this.clockBehindMs = Math.max(this.clockBehindMs, this.clock.nowMs);
		else if (!this.keepsTime) this.clockBehindMs += this.clock.nowMs - this.#offSinceMs;
		this.systemd = startSystemd(this);
		const why = { from: 'system', code: on ? 'starting' : 'no-power', data: undefined };
		for (const track of this.tracks.values()) track.set(this.clock.nowMs, on ? track.kind.wakes : track.kind.off, why);
		if (on) this.emit('mains-on');
		else this.emit('mains-off', { abrupt });
	}

	finish(): void {
		for (const track of this.tracks.values()) track.close(this.clock.nowMs);
	}
}

/** How one link tells of what happens: only with codes that it has words for, and with the data that these take. */
export interface Teller<W extends Words> {
	event<C extends keyof W & string>(code: C, kind: EventKind, ...data: Parameters<W[C]>): void;
	/** An end of the chain is in this state from now on, for this reason. */
	state<C extends keyof W & string>(track: string, state: string, code: C, ...data: Parameters<W[C]>): void;
	/** The same for a reason that somebody else gave. */
	stateFor(track: string, state: string, why: Said): void;
	/** A reason, to be handed on. */
	said<C extends keyof W & string>(code: C, ...data: Parameters<W[C]>): Said;
	/** Something arrived at an end. */
	mark(track: string, name: string, data: unknown): void;
}

/** The voice of one link: only codes that its words have. */
export const tellerFor = <W extends Words>(machine: Machine, from: string, words: W): Teller<W> => {
	void words;
	return {
		event: (code, kind, ...[data]) => machine.tell({ from, code, data }, kind),
		state: (track, state, code, ...[data]) =>
			machine.tracks.get(track)?.set(machine.clock.nowMs, state, { from, code, data }),
		stateFor: (track, state, why) => machine.tracks.get(track)?.set(machine.clock.nowMs, state, why),
		said: (code, ...[data]) => ({ from, code, data }),
		mark: (track, name, data) => machine.tracks.get(track)?.mark(machine.clock.nowMs, name, data)
	};
};
