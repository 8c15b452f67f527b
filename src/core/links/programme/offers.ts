import type { Process, Said } from '../../engines/machine';
import type { Change } from '../../changes';
import type { SettingPath } from '../../link/setting';
import type { Timetable } from '../../onAir/when';
import type { ProgrammeSettings } from './settings';
import type { ProgrammeList } from '../../onAir/when';

interface Caused {
	readonly setting: SettingPath;
}

declare module '../../facts' {
	interface Facts {
		/** When, how often and how long it plays; absent when nothing is played. */
		readonly programme?: Timetable & {
			/** What is done at the end of the list. */
			readonly loop: ProgrammeSettings['loop'];
			/** On average over a week. */
			readonly quietHoursPerDay: number;
			/** From the player's start to its first question for a file, ms. */
			readonly playerStartMs: number;
			/** From one try to the next, when nothing could be played, ms. */
			readonly retryMs: number;
			/** The script that says whether now is outside quiet hours; null: there are none. */
			readonly maySound: string | null;
			/** The program that says whether anything is on, where there are rules. */
			readonly mayPlay: string;
		};
	}
}
declare module '../../changes' {
	interface Changes {
		startAtBoot(): Change;
		/** What is done at the end of the list. */
		loop(how: ProgrammeSettings['loop']): Change;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** An option for the player. */
		player: Caused & { readonly option: string; readonly value: string };
		/** A playlist of its own: some entries of the sources, by id, in order; whoever has those writes it. */
		list: Caused & {
			readonly id: string;
			readonly title: string;
			readonly items: readonly string[];
			readonly valid: ProgrammeList['valid'];
		};
		/** A unit that is stopped for quiet hours and started after them. */
		hushed: Caused & { readonly unit: string };
	}
}

declare module '../../engines/machine/signals' {
	interface Offers {
		/** What the player's program does in another unit, with an address to wait at; false: it is no such call. */
		playAddress?(process: Process): boolean;
	}
	interface Signals {
		/** The player is silent because it is wanted to be. */
		'player-rests': Said;
		/** The player plays, and is not to be heard. */
		'player-silent': Said;
		/** The player is there and nothing comes of it, or it cannot be. */
		'player-fails': Said;
	}
}
