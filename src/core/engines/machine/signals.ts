/** What happens to the machine as a whole; links listen, and add their own signals (`declare module`). */
export interface Signals {
	'mains-on': void;
	/** `abrupt`: nobody shut it down first. */
	'mains-off': { readonly abrupt: boolean };
	/** The firmware may read the card. */
	powered: void;
	/** Kernel up: devices are being found, the first services begin. */
	userspace: void;
	online: void;
	offline: void;
	fault: { readonly name: string; readonly on: boolean };
	/** A command before a unit's own one failed, with its last word. */
	'unit-held-back': { readonly unit: string; readonly why: string };
	/** A unit's own condition said no. */
	'unit-skipped': string;
	/** Somebody asks systemctl for a unit to be started or stopped. */
	'unit-asked': { readonly verb: 'start' | 'stop'; readonly unit: string };
}

/** What a unit asks to be mounted. */
export interface MountWish {
	readonly what: string;
	readonly where: string;
	readonly type: string;
	readonly options: string;
}

/** What a link offers to the programs of the machine; filled in, and declared, by the link that owns the resource. */
export interface Offers {
	/** Mounts something of the bench; `done` is called once, later, with why it could not or null. */
	mount?(wish: MountWish, done: (why: string | null) => void): void;
}

/** What is played or shown: what people call it, and what tells it from all others, titles being no names. */
export interface Shown {
	readonly title: string;
	/** The place by which it was opened, or "page:" and the id of a page. */
	readonly id: string;
}

/** How the player opens the screen, by its own options. */
export interface ScreenWish {
	readonly connector: string | null;
	/** As the player takes it: "preferred", "highest", a number, "1280x720", "1280x720@59.94". */
	readonly mode: string;
	readonly turnDeg: number;
	/** Parts of the screen left free, 0 to 1. */
	readonly margins: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
	/** It fills what is left without keeping its shape. */
	readonly stretches: boolean;
	readonly levels: 'auto' | 'full' | 'limited';
}
