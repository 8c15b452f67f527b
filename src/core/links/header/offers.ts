import type { HeaderUse } from '../../parts/schema';
import type { HeaderSettings } from './settings';

declare module '../../facts' {
	interface Facts {
		/** Where movable lines are wired, by part: GPIO numbers. */
		readonly wiring: HeaderSettings['lines'];
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Pins of the header; `makesSound`: its sound card is missing when it cannot have them. */
		header: { readonly part: string; readonly use: HeaderUse; readonly makesSound: boolean };
	}
}

declare module '../../link/step' {
	interface Conditions {
		'on header': true;
		'clock set': true;
	}
}
