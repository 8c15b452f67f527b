import { z } from 'zod';

/** What a person may want of an endpoint, and the player's own command for it. Source: mpv(1), List of Input Commands. */
export const ACTIONS = {
	next: { words: 'next', command: '["playlist-next"]' },
	previous: { words: 'back', command: '["playlist-prev"]' },
	pause: { words: 'pause, go on', command: '["cycle","pause"]' },
	louder: { words: 'louder', command: '["add","volume",3]' },
	quieter: { words: 'quieter', command: '["add","volume",-3]' },
	mute: { words: 'mute', command: '["cycle","mute"]' },
	restart: { words: 'from the beginning', command: null },
	'shut-down': { words: 'shut down', command: null }
} as const;
/** One of them. */
export type Action = keyof typeof ACTIONS;
const actionIds = Object.keys(ACTIONS) as [Action, ...Action[]];

/** By what it is asked for. */
export const CONTROL_WAYS = {
	keyboard: 'keyboard',
	remote: 'infra-red',
	cec: 'CEC remote',
	gamepad: 'gamepad',
	touch: 'touch',
	phone: 'phone page'
} as const;
/** One of them. */
export type ControlWay = keyof typeof CONTROL_WAYS;

/** One key for one action. */
export const controlSchema = z
	.object({
		action: z.enum(actionIds),
		by: z.enum(Object.keys(CONTROL_WAYS) as [ControlWay, ...ControlWay[]]),
		/** The kernel's name for the key; "": a button on the phone's page. */
		key: z
			.string()
			.regex(/^(?:(?:KEY|BTN)_[A-Z0-9_]{1,30})?$/, 'A key is called as the kernel calls it, such as KEY_NEXTSONG.'),
		/** Of a remote: the code that ir-keytable -t prints; "": none. */
		scancode: z.string().regex(/^(?:0x[0-9a-f]{1,8})?$/, 'A code is written as ir-keytable prints it, such as 0x10.')
	})
	.refine(({ by, key }) => (by === 'phone') === (key === ''), 'A key needs a name, and a page has none.');
/** One key for one action. */
export type Control = z.infer<typeof controlSchema>;

/** The key that most remotes and keyboards have for it. Source: the kernel's include/uapi/linux/input-event-codes.h. */
export const USUAL_KEYS: Readonly<Record<Action, string>> = {
	next: 'KEY_NEXTSONG',
	previous: 'KEY_PREVIOUSSONG',
	pause: 'KEY_PLAYPAUSE',
	louder: 'KEY_VOLUMEUP',
	quieter: 'KEY_VOLUMEDOWN',
	mute: 'KEY_MUTE',
	restart: 'KEY_HOME',
	'shut-down': 'KEY_POWER'
};

/** Those that somebody presses at the set. */
export const keysOf = (controls: readonly Control[]): Control[] => controls.filter(({ by }) => by !== 'phone');

/** Keys that ask for two things, and actions that nothing asks for. */
export function clashesIn(
	controls: readonly Control[]
): { readonly key: string; readonly actions: readonly Action[] }[] {
	const byKey = new Map<string, Action[]>();
	for (const { key, action } of keysOf(controls)) byKey.set(key, [...new Set([...(byKey.get(key) ?? []), action])]);
	return [...byKey].flatMap(([key, actions]) => (actions.length > 1 ? [{ key, actions }] : []));
}

/** Programs that tell the player, and that hear keys: of any keyboard, of a remote, of the set. */
export const controlPackages = (controls: readonly Control[]): string[] => [
	...(controls.some(({ action }) => ACTIONS[action].command !== null) ? ['socat'] : []),
	...(keysOf(controls).length > 0 ? ['triggerhappy'] : []),
	...(controls.some(({ by }) => by === 'remote') ? ['ir-keytable'] : []),
	...(controls.some(({ by }) => by === 'cec') ? ['v4l-utils'] : [])
];
