import type { Machine } from '../../../engines/machine';
import type { ScreenWish } from '../../../engines/machine/signals';
import { PARTS } from '../../../files/partsScript';
import { FINISH } from '../lists/finishFiles';
import { STAND_IN } from '../lists/standInFiles';
import { textFor, type Option, type Player } from './options';

/** As the script has it where no option says otherwise. */
const SCRIPT_LOOKS_SEC = 300;

/** What is done while a stream is gone. */
interface StandIn {
	/** The file that is opened in its place; "": the list goes on. */
	readonly plays: string;
	/** The stream is tried again so often. */
	readonly lookMs: number;
}

/** How it opens the sound hardware, by its options. */
export interface Opening {
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

/** How it opens what it plays. `sounds`: sound is wanted, and the hardware may be opened. */
export function openingOf(player: Player, given: readonly Option[], sounds: boolean): Opening {
	const options = new Map(given.map(({ name, value }) => [name, value]));
	return {
		device: (options.get('audio-device') ?? 'alsa/default').replace(/^alsa\//, ''),
		gainDb: 60 * Math.log10(Number(options.get('volume') ?? 100) / 100),
		forcedRateHz: options.has('audio-samplerate') ? Number(options.get('audio-samplerate')) : null,
		endless: options.get('loop-playlist') === 'inf',
		oneForEver: options.get('loop-file') === 'inf',
		sounds,
		screen: screenOf(options),
		lacks:
			options.get('vo') === 'gpu' && !hasGraphics(player.machine)
				? 'no driver for the graphics unit is installed'
				: null,
		byCircuit: TAKES_CIRCUITS.test(options.get('hwdec') ?? 'no'),
		bufferMs: options.get('cache-pause-initial') === 'yes' ? waitMs(options) : 0,
		dryMs: waitMs(options),
		stillMs: stillMs(options.get('image-display-duration')),
		...scriptsOf(player, given)
	};
}

/** Values of `hwdec` with which the circuits of such boards are used: they are on the player's list of safe ones with none else. Source: mpv 0.35.1, vd_lavc.c, hwdec_autoprobe_info[]. */
const TAKES_CIRCUITS = /^(?:yes|auto|auto-copy|v4l2m2m(?:-copy)?|drm(?:-copy)?)$/;

/** What the player's scripts do, as their options say. A script that is not ours is said to be unknown. */
function scriptsOf(player: Player, given: readonly Option[]): Pick<Opening, 'takesParts' | 'standIn' | 'finishes'> {
	const valuesOf = (wanted: string): string[] => given.filter(({ name }) => name === wanted).map(({ value }) => value);
	let found: StandIn | null = null;
	let takesParts = false;
	let finishes = false;
	for (const path of valuesOf('script')) {
		const text = textFor(player, path);
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
export function screenOf(options: ReadonlyMap<string, string>): ScreenWish | null {
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
