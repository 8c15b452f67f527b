import type { LinkId } from '../../plan/plan';
import type { Bench } from './bench';
import { VirtualClock } from './clock';
import type { CardTree, Disk } from './disk';
import type { Systemd } from './systemd';
import { startSystemd } from './systemd';
import type { Program } from './processes';
import type { Foreseen } from './foresee';
import { World } from './world';
import { addFilePrograms } from './programs/files';
import { addSystemPrograms } from './programs/system';
import { wallClockMs } from '../../formats/systemd/zone';
import type { Audible, Heard, Span, TimelineEvent } from './timeline';

/** What happens to the machine as a whole; links listen. */
export interface Signals {
	'mains-on': void;
	'mains-off': void;
	/** The firmware may read the card. */
	powered: void;
	/** Kernel up: devices are being found, the first services begin. */
	userspace: void;
	'network-up': void;
	'network-down': void;
	'sound-card-added': string;
	'sound-card-removed': string;
	fault: { readonly name: FaultName; readonly on: boolean };
	/** A command before a unit's own one failed, with its last word. */
	'unit-held-back': { readonly unit: string; readonly why: string };
	/** A unit's own condition said no. */
	'unit-skipped': string;
	/** Somebody asks systemctl for a unit to be started or stopped. */
	'unit-asked': { readonly verb: 'start' | 'stop'; readonly unit: string };
}

export const FAULTS = {
	'converter-unplugged': { label: 'Unplug converter', lastsMs: 15_000 },
	'amplifier-muted': { label: 'Mute amplifier', lastsMs: 15_000 },
	'stream-refuses': { label: 'Stream refuses', lastsMs: 60_000 },
	'network-late': { label: 'Network comes late', lastsMs: 40_000 },
	'power-cut': { label: 'Cut the power', lastsMs: 5_000 },
	'supply-weak': { label: 'Weak supply', lastsMs: 30_000 },
	'fan-stops': { label: 'Fan stops', lastsMs: 3_600_000 }
} as const;
export type FaultName = keyof typeof FAULTS;

export interface PlayedMedia {
	readonly codec: string;
	readonly lossless: boolean;
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	/** null: endless. */
	readonly durationMs: number | null;
	readonly level: { readonly rmsDbfs: number; readonly pitchHz: number | null } | null;
}

/** What a link offers to the programs of the machine. Filled in by the link that owns the resource. */
export interface Offers {
	/** Opens an ALSA device by name for samples of this kind; a string says why it could not. */
	openSound?(
		deviceName: string,
		wanted: PlayedMedia & { readonly title: string; readonly gainDb: number; readonly forcedRateHz: number | null },
		onLost: () => void
	): { close(): void } | string;
	/** Finds what a playlist entry leads to; `done` is called once, later. */
	openMedia?(location: string, done: (found: PlayedMedia | string) => void): void;
}

/** The simulated endpoint: a disk, a bench, a clock, and a timeline of what happens. It never sees the plan. */
export class Machine {
	readonly clock = new VirtualClock();
	readonly offers: Offers = {};
	/** Stand-ins for other people's programs, by the path at which a package brings them. */
	readonly programs = new Map<string, Program>();
	/** Scripts that loop for ever, known by heart: what they do, as long as their text on the disk is this. */
	readonly byHeart = new Map<string, { readonly text: string; readonly program: Program }>();
	/** Counts what changes of all that a script could look at. */
	readonly world = new World();
	/** Scripts that only look and wait, with what came of them while the world was as it was. */
	readonly foreseen = new Map<string, { readonly version: number; readonly result: Foreseen | null }>();
	/** What is taken for granted because nobody has told. */
	readonly assumed = new Set<string>();
	/** What was met and cannot be simulated. */
	readonly notRehearsed = new Set<string>();
	readonly events: TimelineEvent[] = [];
	readonly spans: Span[] = [];
	heard: Heard | null = null;
	firstHeard: { atMs: number; heard: Heard } | null = null;
	/** Each title once, as it was first heard. */
	readonly titlesHeard = new Map<string, Heard>();
	powered = false;
	networkUp = false;
	systemd: Systemd;
	readonly activeFaults = new Set<FaultName>();
	/** What cannot work on this bench: sound cards that the kernel does not find, by card id, and parts, by part id. */
	readonly absentCards = new Set<string>();
	readonly absentParts = new Set<string>();
	#boot = 0;
	#listeners = new Map<keyof Signals, ((data: never) => void)[]>();
	#state: { sinceMs: number; state: Audible; why: string } = { sinceMs: 0, state: 'off', why: 'no power' };

	constructor(
		readonly card: CardTree,
		readonly disk: Disk,
		readonly bench: Bench,
		/** Wall clock at mains on, ms UTC. */
		readonly startUtcMs: number,
		/** The endpoint's own time zone, as its files set it. */
		readonly timeZone: string
	) {
		this.disk.onChange = () => this.world.changed();
		addFilePrograms(this);
		addSystemPrograms(this);
		this.systemd = startSystemd(this);
	}

	/** Says once that something is not simulated. */
	unknown(what: string): void {
		if (this.notRehearsed.has(what)) return;
		this.notRehearsed.add(what);
		this.log('system', `Not rehearsed: ${what}`);
	}

	/** The endpoint's own wall clock, as a reading in UTC. */
	get wallClockMs(): number {
		return wallClockMs(this.timeZone, this.nowUtcMs);
	}

	get nowUtcMs(): number {
		return this.startUtcMs + this.clock.nowMs;
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

	log(link: TimelineEvent['link'], text: string, reading = '', kind: TimelineEvent['kind'] = 'info'): void {
		this.events.push({ atMs: this.clock.nowMs, link, text, reading, kind });
	}

	mains(on: boolean): void {
		if (on === this.powered) return;
		this.#boot++;
		this.powered = on;
		this.networkUp = false;
		this.systemd = startSystemd(this);
		if (!on) this.setAudible('off', 'no power', null);
		else this.setAudible('silence', 'starting', null);
		this.emit(on ? 'mains-on' : 'mains-off');
	}

	/** Says what the ear notices from now on. */
	setAudible(state: Audible, why: string, heard: Heard | null): void {
		this.heard = heard;
		if (heard && !this.titlesHeard.has(heard.title)) this.titlesHeard.set(heard.title, heard);
		if (heard && !this.firstHeard) this.firstHeard = { atMs: this.clock.nowMs, heard };
		if (state === this.#state.state && (state === 'sound' || why === this.#state.why)) return;
		this.#closeSpan();
		this.#state = { sinceMs: this.clock.nowMs, state, why };
	}

	finish(): void {
		this.#closeSpan();
	}

	#closeSpan(): void {
		const { sinceMs, state, why } = this.#state;
		if (this.clock.nowMs > sinceMs) this.spans.push({ fromMs: sinceMs, toMs: this.clock.nowMs, state, why });
	}
}

export type RehearsedLink = { readonly id: LinkId; rehearse(machine: Machine): void };
