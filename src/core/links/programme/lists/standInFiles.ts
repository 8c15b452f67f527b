import { scriptLines } from '../../../files/script';
import { lines, rootPath, textFile } from '../../../files/cardFile';
import { writeTone } from '../../../formats/wav/wav';
import type { CardFile } from '../../../link/file';
import type { Context } from '../../../link/context';
import standInScript from './stand-in.lua?raw';
import type { ProgrammeSettings } from '../settings';
import { SIGN_PATH, STAND_IN_PATH, standsIn } from './standIn';

const SIGN = {
	pitchHz: 660,
	peakDbfs: -30,
	sampleRateHz: 48_000,
	bitDepth: 16,
	channels: 1,
	durationMs: 10_000
} as const;
const SIGN_SOUNDS_SEC = 0.4;
const WAV_HEAD_BYTES = 44;

/**
 * The player's hooks let another file be opened in a stream's place, so that its entry stays the current one; a short try by a
 * second player says when it is there again. Where a stream breaks off, what follows it in the list may begin for a blink.
 * Source: mpv(1), LUA SCRIPTING: on_load_fail, end-file; stream-open-filename; its exit codes.
 */
export const STAND_IN = scriptLines(standInScript);

let sign: Uint8Array | null = null;
/** A tone, and silence behind it. */
const signBytes = (): Uint8Array =>
	(sign ??= writeTone(SIGN).fill(0, WAV_HEAD_BYTES + SIGN_SOUNDS_SEC * SIGN.sampleRateHz * 2));

/** The script, and the sign where it is wanted. */
export function standInFiles(settings: ProgrammeSettings, context: Context): CardFile[] {
	if (!standsIn(settings, context)) return [];
	return [
		textFile(
			rootPath(STAND_IN_PATH),
			'Plays something else while a stream is gone, and goes back to it.',
			lines('programme.whenGone', ...STAND_IN)
		),
		...(settings.whenGone === 'sign'
			? [
					{
						path: rootPath(SIGN_PATH),
						mode: '0644',
						why: 'A soft tone each ten seconds while a stream is gone.',
						bytes: signBytes(),
						setting: 'programme.whenGone'
					} as const
				]
			: [])
	];
}
