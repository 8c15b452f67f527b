import type { Machine } from '../../../engines/machine';
import type { Shown } from '../../../engines/machine/signals';
import { partedPlace, partInWords, partLastsMs, type EntryPart } from '../../../files/entryPart';
import { readM3u } from '../../../formats/playlist/m3u';
import { isStream, type PlaylistEntry } from '../../../formats/playlist/playlist';
import type { PlayedMedia } from '../../../parts/media';
import { LEAVES_WITH } from '../lists/finish';
import { DAYS_PATH, LOUD_PATH, NOW_PATH } from '../service';
import { PLAYER_START_MS } from '../timing';
import type { Opening } from './opening';
import { textFor, type Player } from './options';

/** To end after its device is lost. Typical. */
const DEVICE_LOST_MS = 300;
/** To pass over an entry that cannot be played. Typical. */
const PASSED_OVER_MS = 100;
/** So often it is looked whether a stream that ran dry flows again. */
const FLOWS_MS = 200;
/** The script looks so often whether something else is on. */
const SCRIPT_SEES_MS = 1000;
/** What the script looks at. */
const rulesNow = ({ disk }: Machine): string =>
	[NOW_PATH, DAYS_PATH, LOUD_PATH].map((path) => disk.read(path) ?? '').join('\0');

/** An entry, and what of it is played. */
type Parted = PlaylistEntry & { readonly part: EntryPart | null };
/** What stands behind its place is for the script; without that it is part of the name. */
function parted(entry: PlaylistEntry, takesParts: boolean): Parted {
	const { location, part } = partedPlace(entry.location);
	return takesParts ? { ...entry, location, part } : { ...entry, part: null };
}

/** A file that lists others, on the endpoint itself. */
const isList = (location: string): boolean => /^\/.*\.m3u8?$/i.test(location);

const titleOf = (entry: PlaylistEntry): string => entry.title ?? entry.location;

/** What sounds of an entry: a way to end it, why it does not, or null where nothing is to be heard. */
type Heard = { close(): void } | string | null;
/** One entry while it plays. */
interface Current {
	readonly entry: Parted;
	readonly index: number;
	readonly media: PlayedMedia;
	readonly title: string;
	/** Until it ends by itself, ms; null: never. */
	readonly lastsMs: number | null;
	/** False when it was left before. */
	leave(): boolean;
	isLeft(): boolean;
}

/** One entry after another; what cannot be played is passed over. */
export class ListPlayer {
	#entries: Parted[];
	/** Lists that were put in the place of their entries; one within itself would have no end. */
	readonly #taken = new Set<string>();
	readonly #said = new Set<string>();
	#failures = 0;
	/** The stream that is gone, until it is there again. */
	#gone: number | null = null;
	#leaveNow: () => void = () => {};
	/** The screen is tried again with each entry until it opens, and then kept. Source: mpv 0.35, reinit_video_chain_src(). */
	#screen: ReturnType<NonNullable<Machine['offers']['openScreen']>> = '';
	readonly #rules: string;

	constructor(
		readonly player: Player,
		listed: readonly PlaylistEntry[],
		readonly opening: Opening
	) {
		this.#entries = listed.map((one) => parted(one, opening.takesParts));
		this.#rules = rulesNow(player.machine);
	}

	start(): void {
		this.player.process.after(PLAYER_START_MS, () => this.#begin(0));
	}

	#once(key: string, event: () => void): void {
		if (this.#said.has(key)) return;
		this.#said.add(key);
		event();
	}

	/** Something else is on than when the player began, and it is one that goes by that. */
	#isOther(): boolean {
		return this.opening.finishes && rulesNow(this.player.machine) !== this.#rules;
	}

	/** The script says so in the log, where whoever counts restarts looks for it. */
	#makeWay(): void {
		const { machine, process } = this.player;
		machine.log(process.unit, '[finish] something else is on');
		process.exit(LEAVES_WITH);
	}

	#begin(index: number): void {
		const { process, machine } = this.player;
		if (this.#isOther()) return this.#makeWay();
		if (index >= this.#entries.length) return this.#atEnd();
		if (index === 0) this.#failures = 0;
		const entry = this.#entries[index]!;
		if (this.#takeInside(entry, index)) return this.#begin(index);
		machine.offers.openMedia?.(entry.location, (found) =>
			process.after(typeof found !== 'string' && isStream(entry.location) ? this.opening.bufferMs : 0, () =>
				typeof found === 'string' ? this.#failed(entry, index, found) : this.#play(entry, index, found)
			)
		);
	}

	/** A list takes its own entry's place. Source: mpv(1), --playlist; its playlist formats. */
	#takeInside({ location }: Parted, index: number): boolean {
		if (!isList(location) || this.#taken.has(location)) return false;
		const within = readM3u(textFor(this.player, location) ?? '');
		if (!within.ok) return false;
		this.#taken.add(location);
		const inside = within.value.entries.map((one) => parted(one, this.opening.takesParts));
		this.#entries = [...this.#entries.slice(0, index), ...inside, ...this.#entries.slice(index + 1)];
		return true;
	}

	#atEnd(): void {
		const { process, machine, tell } = this.player;
		if (this.#failures >= this.#entries.length) {
			machine.emit('player-fails', tell.said('none-plays'));
			return process.exit(2);
		}
		if (!this.opening.endless) {
			tell.event('list-ends', 'info');
			// Source: mpv(1), EXIT CODES; seen on a real start.
			return process.exit(this.#failures > 0 ? 3 : 0);
		}
		this.#once('again', () => tell.event('list-again', 'info'));
		this.#begin(0);
	}

	#failed(entry: Parted, index: number, why: string): void {
		const { process, tell } = this.player;
		const { standIn } = this.opening;
		this.#once(`${index} ${why}`, () => tell.event('entry-fails', 'bad', { title: titleOf(entry), why }));
		if (standIn && isStream(entry.location)) {
			this.#isGone(entry, index);
			if (standIn.plays) return process.after(PASSED_OVER_MS, () => this.#standIn(standIn.plays));
		}
		this.#failures++;
		process.after(PASSED_OVER_MS, () => this.#begin(index + 1));
	}

	/** It is looked for again and again, until it is there or something else is gone. */
	#isGone(entry: Parted, index: number): void {
		const { process, machine, tell } = this.player;
		if (this.#gone !== null) return;
		this.#gone = index;
		tell.event('stream-gone', 'bad', { title: titleOf(entry) });
		const look = (): void => {
			if (this.#gone !== index) return;
			machine.offers.openMedia?.(entry.location, (found) => {
				if (this.#gone !== index) return;
				if (typeof found === 'string') return process.after(this.opening.standIn!.lookMs, look);
				this.#gone = null;
				tell.event('stream-back', 'info', { title: titleOf(entry) });
				this.#leaveNow();
				this.#begin(index);
			});
		};
		process.after(this.opening.standIn!.lookMs, look);
	}

	/** A file in the place of the stream, again and again. */
	#standIn(path: string): void {
		const { process, machine, tell } = this.player;
		tell.event('stands-in', 'info', { path });
		machine.offers.openMedia?.(path, (found) => {
			if (this.#gone === null) return;
			const title = path.slice(path.lastIndexOf('/') + 1);
			const what = { title, id: path };
			const opened =
				typeof found === 'string'
					? found
					: (this.#show(what, found), this.#sound(what, { ...found, durationMs: null }, null));
			if (typeof opened === 'string') {
				tell.event('entry-fails', 'bad', { title, why: opened });
				machine.emit('player-fails', tell.said('told', { why: opened }));
				return;
			}
			this.#leaveNow = () => opened?.close();
			process.onKill(() => opened?.close());
		});
	}

	#show(what: Shown, { picture }: PlayedMedia): boolean {
		const { process, machine, tell } = this.player;
		const { screen: wish, lacks, byCircuit } = this.opening;
		if (!picture || !wish) return false;
		if (typeof this.#screen === 'string')
			this.#screen = lacks ?? machine.offers.openScreen?.(process.unit, wish) ?? 'this endpoint has no screen';
		if (typeof this.#screen === 'string') {
			const why = this.#screen;
			this.#once(`no picture ${why}`, () => tell.event('no-picture', 'bad', { why }));
			return false;
		}
		const opened = this.#screen;
		opened.show(what, picture, byCircuit);
		process.onKill(() => opened.close());
		return true;
	}

	#sound(what: Shown, media: PlayedMedia, part: EntryPart | null): Heard {
		const { process, machine } = this.player;
		const { opening } = this;
		if (media.silent || !opening.sounds) return null;
		return (
			machine.offers.openSound?.(
				opening.device,
				{ ...media, ...opening, gainDb: opening.gainDb - (part?.quieterDb ?? 0), ...what },
				() => process.after(DEVICE_LOST_MS, () => process.exit(2))
			) ?? 'no sound'
		);
	}

	#play(entry: Parted, index: number, media: PlayedMedia): void {
		const { process, machine, tell } = this.player;
		const { opening } = this;
		const title = titleOf(entry);
		if (this.#gone === index) {
			this.#gone = null;
			tell.event('stream-back', 'info', { title });
		}
		const isStill = media.picture?.framesPerSec === null;
		const lastsMs = partLastsMs(entry.part, isStill ? opening.stillMs : media.durationMs, isStill);
		// Asked for from behind its end, the player goes on to the next. Source: mpv 0.35, tried.
		if (lastsMs === 0) return this.#failed(entry, index, 'it begins behind its end');
		const what = { title, id: entry.location };
		this.#once(`begins ${index}`, () => tell.event('begins', 'info', { ...what, part: partInWords(entry.part) }));
		const seen = this.#show(what, media);
		const opened = this.#sound(what, media, entry.part);
		if (typeof opened === 'string') {
			tell.event('cannot-open', 'bad', { device: opening.device, why: opened });
			machine.emit('player-fails', tell.said('told', { why: opened }));
			// Without sound it goes on as long as there is something to see.
			if (!seen) return process.after(DEVICE_LOST_MS, () => process.exit(2));
		}
		if (opened === null && !seen) return this.#failed(entry, index, 'there is nothing to hear, and it cannot be shown');
		let isLeft = false;
		const leave = (): boolean => {
			if (isLeft) return false;
			isLeft = true;
			this.player.playsNow(null);
			if (opened !== null && typeof opened !== 'string') opened.close();
			return true;
		};
		this.#goesOn({ entry, index, media, title, lastsMs, leave, isLeft: () => isLeft });
	}

	/** Until its end, until its stream is lost or dry, or until something else is on. */
	#goesOn(current: Current): void {
		const { process, playsNow } = this.player;
		const { entry, index, lastsMs, leave } = current;
		const { opening } = this;
		if (this.#gone !== null && this.#gone !== index) this.#leaveNow = () => void leave();
		const next = (): void => {
			if (leave()) this.#begin(index + 1);
		};
		playsNow({
			streams: isStream(entry.location),
			bufferMs: Math.max(opening.bufferMs, opening.dryMs),
			next,
			lost: () => (opening.standIn ? this.#lost(current, opening.standIn.plays) : next()),
			dry: () => this.#dry(current),
			after: process.after
		});
		process.onKill(leave);
		const goesRound = opening.oneForEver || (this.#entries.length === 1 && opening.endless);
		if (lastsMs !== null && !goesRound) process.after(lastsMs, next);
		if (opening.finishes) this.#finishFirst(current, goesRound);
	}

	/** It is asked for once more, and fails or not. */
	#lost({ entry, index, leave }: Current, standIn: string): void {
		if (!leave()) return;
		this.#isGone(entry, index);
		this.#begin(standIn ? index : index + 1);
	}

	/** It is silent until the stream comes again and enough of it is gathered. */
	#dry({ entry, index, media, title, leave }: Current): void {
		const { process, machine, tell } = this.player;
		if (!leave()) return;
		tell.event('runs-dry', 'bad', { title });
		machine.emit('player-fails', tell.said('told', { why: 'the stream has run dry' }));
		const look = (): void => {
			if (machine.activeFaults.has('stream-pauses')) process.after(FLOWS_MS, look);
			else process.after(this.opening.dryMs, () => this.#play(entry, index, media));
		};
		look();
	}

	/** When something else is on, what has an end is played to it. */
	#finishFirst({ title, lastsMs, leave, isLeft }: Current, goesRound: boolean): void {
		const { process, machine, tell } = this.player;
		const beganMs = machine.clock.nowMs;
		let toldOf = false;
		const makesWay = (): void => {
			if (this.#isOther() && leave()) this.#makeWay();
		};
		const forget = machine.world.onChange(() => {
			if (isLeft()) return forget();
			if (!this.#isOther()) return void (toldOf = false);
			if (toldOf) return;
			toldOf = true;
			if (lastsMs === null) {
				tell.event('makes-way', 'info', { title });
				return process.after(SCRIPT_SEES_MS, makesWay);
			}
			tell.event('finishes-first', 'info', { title });
			if (goesRound) process.after(lastsMs - ((machine.clock.nowMs - beganMs) % lastsMs), makesWay);
		});
		process.onKill(forget);
	}
}
