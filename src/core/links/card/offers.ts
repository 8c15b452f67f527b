import type { Change } from '../../changes';
import type { SettingPath } from '../../link/setting';
import type { CardSettings } from './settings';

interface Caused {
	readonly setting: SettingPath;
}

declare module '../../facts' {
	interface Facts {
		readonly root: CardSettings['root'];
		readonly system: CardSettings['system'];
		/** The file in which the board's start names overlays, and the card set does; null: nobody has said how it starts. */
		readonly startsBy: 'config.txt' | 'extlinux.conf' | null;
		/** Where the running system shows the card's first partition. */
		readonly firstPartition: CardSettings['firstPartition'];
	}
}
declare module '../../changes' {
	interface Changes {
		makeRootWritable(): Change;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Room on the card; `inSet`: the card set brings it, by way of the first partition. */
		store: { readonly bytes: number; readonly inSet?: boolean };
		/** A folder on the endpoint that belongs to somebody. */
		folder: Caused & { readonly path: string; readonly owner: string };
		/** Written to the card again and again, in long pieces. */
		wear: { readonly bytesPerDay: number };
		/** An argument of the kernel. Source: the kernel's own list of parameters. */
		kernel: Caused & { readonly argument: string };
		/** An overlay of the device tree, with its parameters, that the board's start file must name. */
		overlay: Caused & { readonly name: string };
		/** A file that the kernel needs before the root is there: a change of it makes the initial RAM disk anew. */
		ramdisk: Caused & { readonly path: string };
		package: Caused & { readonly name: string };
		/** Something that runs by itself: the owner writes its unit. `condition` must succeed first; `boots`: it starts with the board. */
		service: Caused & {
			readonly unit: string;
			readonly why: string;
			readonly described: Caused & { readonly text: string };
			readonly exec: Caused & { readonly words: readonly string[] };
			/** Exit statuses that count as success besides 0; after `beginsAgainAfter` it is begun again, whatever `when` says. */
			readonly restart: Caused & {
				readonly when: 'always' | 'on-failure';
				readonly endsWell?: number;
				readonly beginsAgainAfter?: number;
			};
			readonly condition?: Caused & { readonly path: string };
			/** A folder of its own below /var/lib; two services never share one. */
			readonly home: string;
			readonly boots?: SettingPath;
			/** What a program of an unusual kind needs of its unit besides, and the guards that it bears in place of the usual ones. */
			readonly also?: {
				readonly unit: readonly string[];
				readonly service: readonly string[];
				readonly guards: readonly string[];
			};
		};
		/** A condition for starting a service: units to wait for, a command to run first, hardware that it may use. */
		start: Caused & {
			/** The unit of that service. */
			readonly of: string;
			readonly after?: string;
			/** The unit is also asked for, so that it is really waited for. */
			readonly wants?: true;
			readonly before?: readonly string[];
			/** The service starts all the same when that fails. */
			readonly mayFail?: boolean;
			readonly group?: string;
			readonly device?: string;
		};
		/** A unit that starts with the board. */
		unit: Caused & { readonly name: string };
		/** A read-only test of the finished endpoint: a shell command that succeeds when all is well; `whilePlaying`: only then. */
		check: Caused & { readonly label: string; readonly command: string; readonly whilePlaying?: true };
	}
}

declare module '../../link/step' {
	interface Conditions {
		'set unpacked': true;
		'image checked': true;
		'card empty': true;
		'image on card': true;
		'card compared': true;
		'card in computer': true;
		'set on card': true;
		'card out of computer': true;
		'card in board': true;
		applied: true;
		verified: true;
		alone: true;
	}
}
