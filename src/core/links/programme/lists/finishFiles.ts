import { lines, rootPath, textFile } from '../../../files/cardFile';
import type { CardFile } from '../../../link/file';
import type { Context } from '../../../link/context';
import { FINISH_PATH, finishes } from './finish';
import finish from './finish.lua?raw';
import type { ProgrammeSettings } from '../settings';

/** Source: mpv(1), LUA SCRIPTING: on_unload, add_periodic_timer; quit; file-local-options. */
export const FINISH = finish.trimEnd().split('\n');

/** The script that lets what plays come to its end. */
export const finishFiles = (settings: ProgrammeSettings, context: Context): CardFile[] =>
	finishes(settings, context)
		? [
				textFile(
					rootPath(FINISH_PATH),
					'Lets what plays come to its end when something else is on.',
					lines('programme.atChange', ...FINISH)
				)
			]
		: [];
