import type { Said } from '../../engines/machine';
import type { Draw } from '../../parts/schema';

declare module '../../facts' {
	interface Facts {
		/** Hours a day for which it is switched on. */
		readonly onHoursPerDay: number;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Watts, and the way they come: the board itself, its own sockets, its header, or USB. `part` is the part's id. */
		power: { readonly part: string; readonly count: number } & Draw;
	}
}

declare module '../../engines/machine/signals' {
	interface Signals {
		/** The board went down for want of voltage. */
		'brown-out': Said;
	}
}

declare module '../../link/step' {
	interface Conditions {
		'mains tested': true;
		'supply measured': true;
		powered: true;
	}
}
