import type { Claim } from '../claims';
import type { SettingPath } from '../link/setting';

declare module '../claims' {
	interface ClaimTypes {
		/** A line of the settings sheet: what a person enters where an image has pages of its own, in the words of such pages. */
		entry: { readonly label: string; readonly value: string; readonly setting: SettingPath };
	}
}

/** Lines of the settings sheet: the setting, what such pages call it, and its value. */
export const entryClaims = (
	from: string,
	what: string,
	entries: readonly (readonly [setting: SettingPath, label: string, value: string])[]
): Claim[] => entries.map(([setting, label, value]) => ({ on: 'entry', from, what, label, value, setting }));
