import { readMpvConf } from '../../formats/mpv/conf';
import { readM3u } from '../../formats/playlist/m3u';
import { isStream, type PlaylistEntry } from '../../formats/playlist/playlist';
import type { ScreenWish, Shown } from '../../engines/machine/signals';
import { tellerFor, type Machine, type Process, type Teller } from '../../engines/machine';
import type { PlayedMedia } from '../../parts/media';
import { partedPlace, partInWords, partLastsMs, type EntryPart } from '../../files/entryPart';
import { PARTS } from '../../files/partsScript';
import { PLAYER_UNIT } from '../../files/cardFile';
import { rehearseOnAir } from './rehearseOnAir';
import { DAYS_PATH, LOUD_PATH, NOW_PATH } from './service';
import { LEAVES_WITH } from './finish';
import { FINISH } from './finishFiles';
import { STAND_IN } from './standInFiles';
import { PLAYER_START_MS } from './timing';
import { PROGRAMME_WORDS } from './words';

/** To end after its device is lost; to notice that a stream has dried up. Typical. */
const DEVICE_LOST_MS = 300;
const STREAM_DRY_MS = 10_000;

/** As the script has it where no option says otherwise. */
const SCRIPT_LOOKS_SEC = 300;

/** The script looks so often whether something else is on. */
const SCRIPT_SEES_MS = 1000;
/** What the script looks at. */
const rulesNow = ({ disk }: Machine): string =>
	[NOW_PATH, DAYS_PATH, LOUD_PATH].map((path) => disk.read(path) ?? '').join('\0');

/** What is done while a stream is gone. */
interface StandIn {
	/** The file that is opened in its place; "": the list goes on. */
	readonly plays: string;
	/** The stream is tried again so often. */
	readonly lookMs: number;
}

interface Playing {
	readonly streams: boolean;
	/** What it holds against pauses, ms. */
	readonly bufferMs: number;
	next(): void;
	/** The stream has broken off. */
	lost(): void;
	/** Nothing is left to play until the stream comes again. */
	dry(): void;
	after(ms: number, run: () => void): void;
}

type Tell = Teller<typeof PROGRAMME_WORDS>;

/** The player, and the small programs that tell it when to be quiet. */
export default function rehearseProgramme(machine: Machine): void {
	const tell = tellerFor(machine, 'programme', PROGRAMME_WORDS);
	let playing: Playing | null = null;
	rehearseOnAir(machine, tell);
	machine.programs.set('/usr/bin/mpv', (process) => {
		if (machine.offers.playAddress?.(process)) return;
		play({ process, machine, tell, playsNow: (now) => (playing = now) });
	});
	machine.on('unit-asked', ({ verb, unit }) => {
		if (unit !== PLAYER_UNIT) return;
		const now = machine.disk.read(NOW_PATH);
		// What the rules begin and end they tell of themselves.
		if (now === null) tell.event(verb === 'stop' ? 'quiet-begins' : 'quiet-ends', 'info');
		if (verb === 'stop') machine.emit('player-rests', tell.said(now === '\n' ? 'nothing-on' : 'quiet'));
	});
	machine.on('unit-held-back', ({ unit, why }) => {
		if (unit === PLAYER_UNIT) machine.emit('player-fails', tell.said('held-back', { why }));
	});
	machine.on('unit-skipped', (unit) => {
		if (unit !== PLAYER_UNIT) return;
		if (machine.disk.read(NOW_PATH) === '\n') return machine.emit('player-rests', tell.said('nothing-on'));
		tell.event('stays-off', 'info');
		machine.emit('player-rests', tell.said('quiet'));
	});
	machine.on('userspace', () => {
		playing = null;
		// An endpoint that only receives has none.
		if (machine.disk.unit(PLAYER_UNIT) && !machine.disk.enabled.includes(PLAYER_UNIT)) {
			tell.event('nothing-starts', 'bad');
			machine.emit('player-fails', tell.said('is-not-started'));
		}
	});
	machine.on('offline', () => {
		const current = playing;
		if (current?.streams)
			current.after(STREAM_DRY_MS, () => {
				if (playing === current && !machine.online) current.lost();
			});
	});
	machine.on('fault', ({ name, on }) => {
		const current = playing;
		if (name === 'stream-refuses' && on && current?.streams)
			current.after(1000, () => playing === current && current.lost());
		if (name === 'stream-pauses' && on && current?.streams)
			current.after(current.bufferMs, () => {
				if (playing === current && machine.activeFaults.has(name)) current.dry();
			});
	});
}

/** Values of `hwdec` with which the circuits of such boards are used: they are on the player's list of safe ones with none else. Source: mpv 0.35.1, vd_lavc.c, hwdec_autoprobe_info[]. */
const TAKES_CIRCUITS = /^(?:yes|auto|auto-copy|v4l2m2m(?:-copy)?|drm(?:-copy)?)$/;

/** What keeps the player from playing anything at all. Source: mpv(1). */
const STILL: readonly (readonly [string, string, string])[] = [['pause', 'yes', 'it is paused']];
/** What silences the player whatever it plays. Source: mpv(1). */
const SILENT: readonly (readonly [string, string, string])[] = [
	['ao', 'null', 'its sound goes nowhere'],
	['mute', 'yes', 'it is muted'],
	['audio', 'no', 'it plays no sound'],
	['aid', 'no', 'it plays no sound']
];
/** Ways out that the player has on such a system. Source: mpv(1), AUDIO OUTPUT DRIVERS. */
const OUTPUTS = ['alsa', 'pipewire', 'pulse', 'null', 'pcm'];
/** Simulated here, or of no consequence to what is heard. */
const KNOWN_OPTIONS = new Set([
	...['ao', 'playlist', 'audio-device', 'volume', 'audio-samplerate', 'loop-playlist', 'loop-file', 'shuffle'],
	...[
		'video',
		'ytdl',
		'load-scripts',
		'input-default-bindings',
		'input-terminal',
		'msg-color',
		'quiet',
		'network-timeout'
	],
	...[
		'audio-format',
		'audio-channels',
		'audio-exclusive',
		'gapless-audio',
		'volume-max',
		'replaygain',
		'terminal',
		'cache',
		'cache-pause-initial',
		'cache-pause-wait'
	],
	...['script', 'script-opts-append'],
	...['vo', 'gpu-context', 'drm-connector', 'drm-mode', 'video-rotate', 'keepaspect', 'video-output-levels', 'hwdec'],
	...['video-margin-ratio-left', 'video-margin-ratio-right', 'video-margin-ratio-top', 'video-margin-ratio-bottom'],
	...['input-ipc-server', 'profile', 'image-display-duration', 'prefetch-playlist', 'osc', 'osd-level', 'vid']
]);

/** Options on the command line. Source: mpv(1), OPTIONS. */
const argumentOptions = (argv: readonly string[]): { name: string; value: string }[] =>
	argv.slice(1).flatMap((arg) => {
		if (!arg.startsWith('--')) return [];
		const equals = arg.indexOf('=');
		return [
			equals < 0 ? { name: arg.slice(2), value: 'yes' } : { name: arg.slice(2, equals), value: arg.slice(equals + 1) }
		];
	});

/** A file as the player's own user may read it; null: not there, or not for everybody. */
function readAs({ process, machine, tell }: Player, path: string): string | null {
	const file = machine.disk.get(path);
	if (!file) return null;
	if (machine.systemd.mayRead(process.unit, file.mode)) return file.text;
	tell.event('may-not-read', 'bad', { path, mode: file.mode });
	return null;
}

interface Player {
	readonly process: Process;
	readonly machine: Machine;
	readonly tell: Tell;
	playsNow(now: Playing | null): void;
}

/** How it opens the sound hardware, by its options. */
interface Opening {
	readonly device: string;
	readonly gainDb: number;
	readonly forcedRateHz: number | null;
	readonly endless: boolean;
	readonly oneForEver: boolean;
	/** It opens the sound hardware. */
	readonly sounds: boolean;
	/** How it opens the screen; null: it shows nothing. */
	readonly screen: ScreenWish | null;
	/** Why it cannot draw whatever screen there is; null: it can. */
	readonly lacks: string | null;
	/** A circuit decodes where the board has one. */
	readonly byCircuit: boolean;
	/** Of a stream, so much is gathered before it begins, ms. */
	readonly bufferMs: number;
	/** So much is gathered again when it has run dry, ms. */
	readonly dryMs: number;
	/** How long a still picture stands; null: for ever. */
	readonly stillMs: number | null;
	/** What stands behind an entry's place is taken for what of it is played. */
	readonly takesParts: boolean;
	readonly standIn: StandIn | null;
	/** What plays is played to its end when something else is on. */
	readonly finishes: boolean;
}

function play(player: Player): void {
	const { process, machine, tell } = player;
	const fails = (why: ReturnType<Tell['said']>): void => machine.emit('player-fails', why);
	const asked = [...readMpvConf(readAs(player, '/etc/mpv/mpv.conf') ?? ''), ...argumentOptions(process.argv)];
	// A file of options that is not there is passed over without a word. Source: mpv 0.35, tried.
	const given = asked.flatMap((one) => {
		if (one.name !== 'include') return [one];
		const more = readAs(player, one.value);
		if (more === null) tell.event('include-gone', 'bad', { path: one.value });
		return readMpvConf(more ?? '');
	});
	const options = new Map(given.map((option) => [option.name, option.value]));
	for (const [name, value] of options)
		if (!KNOWN_OPTIONS.has(name) && !SILENT.some(([known]) => known === name))
			machine.unknown(`the player's option ${name}=${value}`);
	const list = readM3u(readAs(player, options.get('playlist') ?? '') ?? '');
	if (!list.ok) {
		tell.event('list-unreadable', 'bad', { why: list.faults[0]!.message });
		fails(tell.said('list-empty'));
		return process.after(PLAYER_START_MS, () => process.exit(1));
	}
	if (!machine.systemd.isOther(process.unit)) tell.event('as-root', 'bad');
	const output = options.get('ao');
	if (output !== undefined && !OUTPUTS.includes(output)) {
		tell.event('no-such-output', 'bad', { output });
		return fails(tell.said('told', { why: 'the player knows no such output' }));
	}
	const still = STILL.find(([name, value]) => options.get(name) === value);
	const silent = SILENT.find(([name, value]) => options.get(name) === value);
	const screen = screenOf(options);
	// Sound that is wanted off is no fault where a picture is shown.
	if (still || (silent && !screen)) {
		const [name, value, why] = (still ?? silent)!;
		tell.event('told-silent', 'bad', { option: `${name}=${value}`, why });
		// It goes on, and nobody hears it.
		return fails(tell.said('told', { why }));
	}
	if (silent) machine.emit('player-silent', tell.said('told', { why: silent[2] }));
	const refused = silent ? null : machine.systemd.mayUse(process.unit, 'audio', 'char-alsa');
	if (refused) {
		tell.event('may-not-open', 'bad', { why: refused });
		fails(tell.said('told', { why: refused }));
		if (!screen) return process.after(PLAYER_START_MS, () => process.exit(2));
	}
	playList(player, list.value.entries, {
		device: (options.get('audio-device') ?? 'alsa/default').replace(/^alsa\//, ''),
		gainDb: 60 * Math.log10(Number(options.get('volume') ?? 100) / 100),
		forcedRateHz: options.has('audio-samplerate') ? Number(options.get('audio-samplerate')) : null,
		endless: options.get('loop-playlist') === 'inf',
		oneForEver: options.get('loop-file') === 'inf',
		sounds: !silent && !refused,
		screen,
		lacks: options.get('vo') === 'gpu' && !hasGraphics(machine) ? 'no driver for the graphics unit is installed' : null,
		byCircuit: TAKES_CIRCUITS.test(options.get('hwdec') ?? 'no'),
		bufferMs: options.get('cache-pause-initial') === 'yes' ? waitMs(options) : 0,
		dryMs: waitMs(options),
		stillMs: stillMs(options.get('image-display-duration')),
		...scriptsOf(player, given)
	});
}

/** What the player's scripts do, as their options say. A script that is not ours is said to be unknown. */
function scriptsOf(
	player: Player,
	given: readonly { name: string; value: string }[]
): Pick<Opening, 'takesParts' | 'standIn' | 'finishes'> {
	const valuesOf = (wanted: string): string[] => given.filter(({ name }) => name === wanted).map(({ value }) => value);
	let found: StandIn | null = null;
	let takesParts = false;
	let finishes = false;
	for (const path of valuesOf('script')) {
		const text = readAs(player, path);
		if (text === null) {
			player.tell.event('script-gone', 'bad', { path });
			continue;
		}
		if (text.trimEnd() === PARTS.join('\n')) {
			takesParts = true;
			continue;
		}
		if (text.trimEnd() === FINISH.join('\n')) {
			finishes = true;
			continue;
		}
		if (text.trimEnd() !== STAND_IN.join('\n')) {
			player.machine.unknown(`the player's script ${path}`);
			continue;
		}
		const options = new Map(
			valuesOf('script-opts-append').map((pair) => [
				pair.slice(0, pair.indexOf('=')),
				pair.slice(pair.indexOf('=') + 1)
			])
		);
		found = {
			plays: options.get('stand-in-plays') ?? '',
			lookMs: 1000 * (Number(options.get('stand-in-look')) || SCRIPT_LOOKS_SEC)
		};
	}
	return { takesParts, standIn: found, finishes };
}

/** Without them no picture is drawn by the graphics unit. Source: their descriptions in Debian 12. */
const GRAPHICS = ['libegl-mesa0', 'libgl1-mesa-dri'];
const hasGraphics = (machine: Machine): boolean =>
	GRAPHICS.every((name) => machine.disk.packages.get(name) === 'installed');

/** What the player gathers before it begins, and again when it has run dry, ms. Source: mpv(1), --cache-pause-wait. */
const waitMs = (options: ReadonlyMap<string, string>): number =>
	1000 * (Number(options.get('cache-pause-wait') ?? 1) || 1);

/** A still picture stands for one second unless told otherwise; null: for ever. Source: mpv(1), --image-display-duration. */
const stillMs = (value: string | undefined): number | null =>
	value === 'inf' ? null : value === undefined || Number.isNaN(Number(value)) ? 1000 : Number(value) * 1000;

/** Ways to a screen that need no desktop. Source: mpv(1), VIDEO OUTPUT DRIVERS. */
const SCREENS = ['drm', 'gpu'];

/** How the player opens the screen by its options; null: it shows nothing. */
function screenOf(options: ReadonlyMap<string, string>): ScreenWish | null {
	const shows = (options.get('video') ?? options.get('vid') ?? 'auto') !== 'no';
	const vo = options.get('vo') ?? '';
	if (!shows || !SCREENS.includes(vo)) return null;
	const margin = (side: string): number => Number(options.get(`video-margin-ratio-${side}`) ?? 0) || 0;
	return {
		connector: options.get('drm-connector') ?? null,
		mode: options.get('drm-mode') ?? 'preferred',
		turnDeg: Number(options.get('video-rotate') ?? 0) || 0,
		margins: { left: margin('left'), right: margin('right'), top: margin('top'), bottom: margin('bottom') },
		stretches: options.get('keepaspect') === 'no',
		levels: (options.get('video-output-levels') ?? 'auto') as ScreenWish['levels']
	};
}

/** An entry, and what of it is played. */
type Parted = PlaylistEntry & { readonly part: EntryPart | null };
/** What stands behind its place is for the script; without that it is part of the name. */
function parted(entry: PlaylistEntry, takesParts: boolean): Parted {
	const { location, part } = partedPlace(entry.location);
	return takesParts ? { ...entry, location, part } : { ...entry, part: null };
}

/** A file that lists others, on the endpoint itself. */
const isList = (location: string): boolean => /^\/.*\.m3u8?$/i.test(location);

/** One entry after another; what cannot be played is passed over. */
function playList(player: Player, listed: readonly PlaylistEntry[], opening: Opening): void {
	let entries = listed.map((one) => parted(one, opening.takesParts));
	/** Lists that were put in the place of their entries; one within itself would have no end. */
	const taken = new Set<string>();
	const { process, machine, tell, playsNow } = player;
	let failures = 0;
	const said = new Set<string>();
	const once = (key: string, event: () => void): void => {
		if (said.has(key)) return;
		said.add(key);
		event();
	};
	const titleOf = (entry: PlaylistEntry): string => entry.title ?? entry.location;
	const rules = rulesNow(machine);
	/** Something else is on than when the player began, and it is one that goes by that. */
	const isOther = (): boolean => opening.finishes && rulesNow(machine) !== rules;

	/** The script says so in the log, where whoever counts restarts looks for it. */
	const makeWay = (): void => {
		machine.log(process.unit, '[finish] something else is on');
		process.exit(LEAVES_WITH);
	};

	const begin = (index: number): void => {
		if (isOther()) return makeWay();
		if (index >= entries.length) return atEnd();
		if (index === 0) failures = 0;
		const entry = entries[index]!;
		const within =
			isList(entry.location) && !taken.has(entry.location) ? readM3u(readAs(player, entry.location) ?? '') : null;
		if (within?.ok) {
			taken.add(entry.location);
			// The list takes its own entry's place. Source: mpv(1), --playlist; its playlist formats.
			const inside = within.value.entries.map((one) => parted(one, opening.takesParts));
			entries = [...entries.slice(0, index), ...inside, ...entries.slice(index + 1)];
			return begin(index);
		}
		machine.offers.openMedia?.(entry.location, (found) =>
			process.after(typeof found !== 'string' && isStream(entry.location) ? opening.bufferMs : 0, () =>
				typeof found === 'string' ? failed(entry, index, found) : sound(entry, index, found)
			)
		);
	};
	const atEnd = (): void => {
		if (failures >= entries.length) {
			machine.emit('player-fails', tell.said('none-plays'));
			return process.exit(2);
		}
		if (!opening.endless) {
			tell.event('list-ends', 'info');
			// Source: mpv(1), EXIT CODES; seen on a real start.
			return process.exit(failures > 0 ? 3 : 0);
		}
		once('again', () => tell.event('list-again', 'info'));
		begin(0);
	};
	const failed = (entry: Parted, index: number, why: string): void => {
		once(`${index} ${why}`, () => tell.event('entry-fails', 'bad', { title: titleOf(entry), why }));
		if (opening.standIn && isStream(entry.location)) {
			isGone(entry, index);
			if (opening.standIn.plays) return process.after(100, () => standIn(opening.standIn!.plays));
		}
		failures++;
		process.after(100, () => begin(index + 1));
	};
	/** The stream that is gone, until it is there again. */
	let gone: number | null = null;
	let leaveNow: () => void = () => {};
	const isGone = (entry: Parted, index: number): void => {
		if (gone !== null) return;
		gone = index;
		tell.event('stream-gone', 'bad', { title: titleOf(entry) });
		const look = (): void => {
			if (gone !== index) return;
			machine.offers.openMedia?.(entry.location, (found) => {
				if (gone !== index) return;
				if (typeof found === 'string') return process.after(opening.standIn!.lookMs, look);
				gone = null;
				tell.event('stream-back', 'info', { title: titleOf(entry) });
				leaveNow();
				begin(index);
			});
		};
		process.after(opening.standIn!.lookMs, look);
	};
	/** A file in the place of the stream, again and again. */
	const standIn = (path: string): void => {
		tell.event('stands-in', 'info', { path });
		machine.offers.openMedia?.(path, (found) => {
			if (gone === null) return;
			const title = path.slice(path.lastIndexOf('/') + 1);
			const what = { title, id: path };
			const opened =
				typeof found === 'string' ? found : (shown(what, found), heard(what, { ...found, durationMs: null }));
			if (typeof opened === 'string') {
				tell.event('entry-fails', 'bad', { title, why: opened });
				machine.emit('player-fails', tell.said('told', { why: opened }));
				return;
			}
			leaveNow = () => opened?.close();
			process.onKill(() => opened?.close());
		});
	};
	/** The screen is tried again with each entry until it opens, and then kept. Source: mpv 0.35, reinit_video_chain_src(). */
	let screen: ReturnType<NonNullable<Machine['offers']['openScreen']>> = '';
	const shown = (what: Shown, { picture }: PlayedMedia): boolean => {
		if (!picture || !opening.screen) return false;
		if (typeof screen === 'string')
			screen =
				opening.lacks ?? machine.offers.openScreen?.(process.unit, opening.screen) ?? 'this endpoint has no screen';
		if (typeof screen === 'string') {
			const why = screen;
			once(`no picture ${why}`, () => tell.event('no-picture', 'bad', { why }));
			return false;
		}
		const opened = screen;
		opened.show(what, picture, opening.byCircuit);
		process.onKill(() => opened.close());
		return true;
	};
	const heard = (what: Shown, media: PlayedMedia, part: EntryPart | null = null): { close(): void } | string | null =>
		media.silent || !opening.sounds
			? null
			: (machine.offers.openSound?.(
					opening.device,
					{ ...media, ...opening, gainDb: opening.gainDb - (part?.quieterDb ?? 0), ...what },
					() => process.after(DEVICE_LOST_MS, () => process.exit(2))
				) ?? 'no sound');
	const sound = (entry: Parted, index: number, media: PlayedMedia): void => {
		const title = titleOf(entry);
		if (gone === index) {
			gone = null;
			tell.event('stream-back', 'info', { title });
		}
		const isStill = media.picture?.framesPerSec === null;
		const lastsMs = partLastsMs(entry.part, isStill ? opening.stillMs : media.durationMs, isStill);
		// Asked for from behind its end, the player goes on to the next. Source: mpv 0.35, tried.
		if (lastsMs === 0) return failed(entry, index, 'it begins behind its end');
		once(`begins ${index}`, () =>
			tell.event('begins', 'info', { title, id: entry.location, part: partInWords(entry.part) })
		);
		const what = { title, id: entry.location };
		const seen = shown(what, media);
		const opened = heard(what, media, entry.part);
		if (typeof opened === 'string') {
			tell.event('cannot-open', 'bad', { device: opening.device, why: opened });
			machine.emit('player-fails', tell.said('told', { why: opened }));
			// Without sound it goes on as long as there is something to see.
			if (!seen) return process.after(DEVICE_LOST_MS, () => process.exit(2));
		}
		if (opened === null && !seen) return failed(entry, index, 'there is nothing to hear, and it cannot be shown');
		let current = true;
		const leave = (): boolean => {
			if (!current) return false;
			current = false;
			playsNow(null);
			if (opened !== null && typeof opened !== 'string') opened.close();
			return true;
		};
		const next = (): void => {
			if (leave()) begin(index + 1);
		};
		const lost = (): void => {
			if (!opening.standIn) return next();
			if (!leave()) return;
			isGone(entry, index);
			// It is asked for once more, and fails or not.
			begin(opening.standIn.plays ? index : index + 1);
		};
		if (gone !== null && gone !== index) leaveNow = () => void leave();
		/** It is silent until the stream comes again and enough of it is gathered. */
		const dry = (): void => {
			if (!leave()) return;
			tell.event('runs-dry', 'bad', { title });
			machine.emit('player-fails', tell.said('told', { why: 'the stream has run dry' }));
			const look = (): void => {
				if (machine.activeFaults.has('stream-pauses')) process.after(200, look);
				else process.after(opening.dryMs, () => sound(entry, index, media));
			};
			look();
		};
		playsNow({
			streams: isStream(entry.location),
			bufferMs: Math.max(opening.bufferMs, opening.dryMs),
			next,
			lost,
			dry,
			after: process.after
		});
		process.onKill(leave);
		const alone = entries.length === 1 && opening.endless;
		const goesRound = opening.oneForEver || alone;
		if (lastsMs !== null && !goesRound) process.after(lastsMs, next);
		if (!opening.finishes) return;
		const beganMs = machine.clock.nowMs;
		let toldOf = false;
		const forget = machine.world.onChange(() => {
			if (!current) return forget();
			if (!isOther()) return void (toldOf = false);
			if (toldOf) return;
			toldOf = true;
			const makesWay = (): void => {
				if (isOther() && leave()) makeWay();
			};
			if (lastsMs === null) {
				tell.event('makes-way', 'info', { title });
				return process.after(SCRIPT_SEES_MS, makesWay);
			}
			tell.event('finishes-first', 'info', { title });
			if (goesRound) process.after(lastsMs - ((machine.clock.nowMs - beganMs) % lastsMs), makesWay);
		});
		process.onKill(forget);
	};
	process.after(PLAYER_START_MS, () => begin(0));
}
