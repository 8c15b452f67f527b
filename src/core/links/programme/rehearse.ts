import { readMpvConf } from '../../formats/mpv/conf';
import { isStream, readM3u, type PlaylistEntry } from '../../formats/playlist';
import type { Machine, PlayedMedia, Process } from '../../engines/machine';
import { PLAYER_UNIT } from '../../cardFile';

/** From its start to its first question for a file; to end after its device is lost; to notice that a stream has dried up. Typical. */
const PLAYER_START_MS = 700;
const DEVICE_LOST_MS = 300;
const STREAM_DRY_MS = 10_000;

interface Playing {
	readonly streams: boolean;
	next(): void;
	after(ms: number, run: () => void): void;
}

/** The player, and the small programs that tell it when to be quiet. */
export function rehearseProgramme(machine: Machine): void {
	let playing: Playing | null = null;
	machine.programs.set('/usr/bin/mpv', (process) => play(process, machine, (now) => (playing = now)));
	machine.on('unit-asked', ({ verb, unit }) => {
		if (unit !== PLAYER_UNIT) return;
		machine.log('programme', verb === 'stop' ? 'Quiet hours begin' : 'Quiet hours end');
		if (verb === 'stop') machine.setAudible('quiet', 'quiet hours', null);
	});
	machine.on('unit-held-back', ({ unit, why }) => {
		if (unit === PLAYER_UNIT) machine.setAudible('silence', why, null);
	});
	machine.on('unit-skipped', (unit) => {
		if (unit !== PLAYER_UNIT) return;
		machine.log('programme', 'Quiet hours: the player stays off');
		machine.setAudible('quiet', 'quiet hours', null);
	});
	machine.on('userspace', () => {
		playing = null;
		if (!machine.disk.enabled.includes(PLAYER_UNIT)) {
			machine.log('programme', 'Nothing starts the player', '', 'bad');
			machine.setAudible('silence', 'nothing starts the player', null);
		}
	});
	machine.on('network-down', () => {
		const current = playing;
		if (current?.streams)
			current.after(STREAM_DRY_MS, () => {
				if (playing === current && !machine.networkUp) current.next();
			});
	});
	machine.on('fault', ({ name, on }) => {
		const current = playing;
		if (name === 'stream-refuses' && on && current?.streams)
			current.after(1000, () => playing === current && current.next());
	});
}

/** What silences the player whatever it plays. Source: mpv(1). */
const SILENT: readonly (readonly [string, string, string])[] = [
	['ao', 'null', 'its sound goes nowhere'],
	['pause', 'yes', 'it is paused'],
	['mute', 'yes', 'it is muted'],
	['audio', 'no', 'it plays no sound'],
	['aid', 'no', 'it plays no sound']
];
/** Simulated here, or of no consequence to what is heard. */
const KNOWN_OPTIONS = new Set([
	...['playlist', 'audio-device', 'volume', 'audio-samplerate', 'loop-playlist', 'loop-file', 'shuffle'],
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
		'cache'
	]
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
function readAs(process: Process, machine: Machine, path: string): string | null {
	const file = machine.disk.get(path);
	if (!file) return null;
	if (machine.systemd.mayRead(process.unit, file.mode)) return file.text;
	machine.log('programme', `The player may not read ${path}: its mode is ${file.mode}`, '', 'bad');
	return null;
}

function play(process: Process, machine: Machine, tell: (now: Playing | null) => void): void {
	const options = new Map(
		[...readMpvConf(readAs(process, machine, '/etc/mpv/mpv.conf') ?? ''), ...argumentOptions(process.argv)].map(
			(option) => [option.name, option.value]
		)
	);
	const silent = SILENT.find(([name, value]) => options.get(name) === value);
	for (const [name, value] of options)
		if (!KNOWN_OPTIONS.has(name) && !SILENT.some(([known]) => known === name))
			machine.unknown(`the player's option ${name}=${value}`);
	const path = options.get('playlist') ?? '';
	const list = readM3u(readAs(process, machine, path) ?? '');
	if (!list.ok) {
		machine.log('sources', list.faults[0]!.message, '', 'bad');
		machine.setAudible('silence', 'the playlist is empty', null);
		return process.after(PLAYER_START_MS, () => process.exit(1));
	}
	const entries = list.value.entries;
	const device = (options.get('audio-device') ?? 'alsa/default').replace(/^alsa\//, '');
	const gainDb = 60 * Math.log10(Number(options.get('volume') ?? 100) / 100);
	const forcedRateHz = options.has('audio-samplerate') ? Number(options.get('audio-samplerate')) : null;
	if (silent) {
		machine.log('programme', `The player is told ${silent[0]}=${silent[1]}: ${silent[2]}`, '', 'bad');
		machine.setAudible('silence', silent[2], null);
		// It goes on, and nobody hears it.
		return;
	}
	const refused = machine.systemd.mayUse(process.unit, 'audio', 'char-alsa');
	if (refused) {
		machine.log('sound', `The player may not open the sound hardware: ${refused}`, '', 'bad');
		machine.setAudible('silence', refused, null);
		return process.after(PLAYER_START_MS, () => process.exit(2));
	}
	const endless = options.get('loop-playlist') === 'inf';
	const oneForEver = options.get('loop-file') === 'inf';
	let failures = 0;
	const said = new Set<string>();
	const once = (text: string, kind: 'info' | 'bad'): void => {
		if (said.has(text)) return;
		said.add(text);
		machine.log('sources', text, '', kind);
	};

	const begin = (index: number): void => {
		if (index >= entries.length) {
			if (failures >= entries.length) {
				machine.setAudible('silence', 'none of the sources can be played', null);
				return process.exit(2);
			}
			if (!endless) {
				machine.log('programme', 'The list is at its end');
				return process.exit(0);
			}
			once('The list begins again', 'info');
			return begin(0);
		}
		if (index === 0) failures = 0;
		const entry = entries[index]!;
		machine.offers.openMedia?.(entry.location, (found) =>
			process.after(0, () => (typeof found === 'string' ? failed(entry, index, found) : sound(entry, index, found)))
		);
	};
	const failed = (entry: PlaylistEntry, index: number, why: string): void => {
		failures++;
		once(`${entry.title ?? entry.location}: ${why}`, 'bad');
		process.after(100, () => begin(index + 1));
	};
	const sound = (entry: PlaylistEntry, index: number, media: PlayedMedia): void => {
		const title = entry.title ?? entry.location;
		once(`Begins: ${title}`, 'info');
		const opened = machine.offers.openSound?.(device, { ...media, title, gainDb, forcedRateHz }, () =>
			process.after(DEVICE_LOST_MS, () => process.exit(2))
		);
		if (opened === undefined || typeof opened === 'string') {
			machine.log('sound', `The player cannot open ${device}: ${opened ?? 'no sound'}`, '', 'bad');
			machine.setAudible('silence', opened ?? 'no sound', null);
			return process.after(DEVICE_LOST_MS, () => process.exit(2));
		}
		let current = true;
		const next = (): void => {
			if (!current) return;
			current = false;
			tell(null);
			opened.close();
			begin(index + 1);
		};
		tell({ streams: isStream(entry.location), next, after: process.after });
		process.onKill(() => {
			if (!current) return;
			current = false;
			tell(null);
			opened.close();
		});
		const alone = entries.length === 1 && endless;
		if (media.durationMs !== null && !oneForEver && !alone) process.after(media.durationMs, next);
	};
	process.after(PLAYER_START_MS, () => begin(0));
}
