import type { Machine, Process, Teller } from '../../../engines/machine';
import { readMpvConf } from '../../../formats/mpv/conf';
import type { PROGRAMME_WORDS } from '../words';

type Tell = Teller<typeof PROGRAMME_WORDS>;

/** What plays now, as far as the world outside the player must know it. */
export interface Playing {
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

/** One run of the player, and whom it tells. */
export interface Player {
	readonly process: Process;
	readonly machine: Machine;
	readonly tell: Tell;
	playsNow(now: Playing | null): void;
}
/** An option as it is given. */
export interface Option {
	readonly name: string;
	readonly value: string;
}

/** What keeps the player from playing anything at all. Source: mpv(1). */
export const STILL: readonly (readonly [string, string, string])[] = [['pause', 'yes', 'it is paused']];
/** What silences the player whatever it plays. Source: mpv(1). */
export const SILENT: readonly (readonly [string, string, string])[] = [
	['ao', 'null', 'its sound goes nowhere'],
	['mute', 'yes', 'it is muted'],
	['audio', 'no', 'it plays no sound'],
	['aid', 'no', 'it plays no sound']
];
/** Ways out that the player has on such a system. Source: mpv(1), AUDIO OUTPUT DRIVERS. */
export const OUTPUTS = ['alsa', 'pipewire', 'pulse', 'null', 'pcm'];
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
const argumentOptions = (argv: readonly string[]): Option[] =>
	argv.slice(1).flatMap((arg) => {
		if (!arg.startsWith('--')) return [];
		const equals = arg.indexOf('=');
		return [
			equals < 0 ? { name: arg.slice(2), value: 'yes' } : { name: arg.slice(2, equals), value: arg.slice(equals + 1) }
		];
	});

/** A file as the player's own user may read it; null: not there, or not for everybody. */
export function textFor({ process, machine, tell }: Player, path: string): string | null {
	const file = machine.disk.get(path);
	if (!file) return null;
	if (machine.systemd.mayRead(process.unit, file.mode)) return file.text;
	tell.event('may-not-read', 'bad', { path, mode: file.mode });
	return null;
}

/** All options in the order in which they count. A file of options that is not there is passed over without a word. Source: mpv 0.35, tried. */
export function optionsOf(player: Player): Option[] {
	const asked = [...readMpvConf(textFor(player, '/etc/mpv/mpv.conf') ?? ''), ...argumentOptions(player.process.argv)];
	const given = asked.flatMap((one) => {
		if (one.name !== 'include') return [one];
		const more = textFor(player, one.value);
		if (more === null) player.tell.event('include-gone', 'bad', { path: one.value });
		return readMpvConf(more ?? '');
	});
	for (const { name, value } of new Map(given.map((one) => [one.name, one])).values())
		if (!KNOWN_OPTIONS.has(name) && !SILENT.some(([known]) => known === name))
			player.machine.unknown(`the player's option ${name}=${value}`);
	return given;
}
