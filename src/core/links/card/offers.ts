import type { Change } from '../../changes';
import type { SettingPath } from '../../link';
import type { CardSettings } from './settings';

interface Caused {
	readonly setting: SettingPath;
}

declare module '../../facts' {
	interface Facts {
		readonly root: CardSettings['root'];
		readonly system: CardSettings['system'];
	}
}
declare module '../../changes' {
	interface Changes {
		makeRootWritable(): Change;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Room on the card. */
		store: { readonly bytes: number };
		/** Written to the card again and again, in long pieces. */
		wear: { readonly bytesPerDay: number };
		/** An argument of the kernel. Source: the kernel's own list of parameters. */
		kernel: Caused & { readonly argument: string };
		package: Caused & { readonly name: string };
		/** A unit that starts with the board. */
		unit: Caused & { readonly name: string };
		/** A read-only test of the finished endpoint: a shell command that succeeds when all is well; `whilePlaying`: only then. */
		check: Caused & { readonly label: string; readonly command: string; readonly whilePlaying?: true };
	}
}
