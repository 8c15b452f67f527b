import type { SettingPath } from './setting';

/** Something worked out. `text` is what a person reads, number and unit together. */
export interface Figure {
	readonly id: string;
	readonly label: string;
	readonly text: string;
	readonly value: number | null;
	readonly sure: 'exact' | 'measured' | 'typical' | 'assumed';
	/** How it came about, in words. */
	readonly from: string;
	/** Where it is changed: the setting that weighs most in it. */
	readonly setting: SettingPath;
	/** The one figure that stands for its link in the chain. */
	readonly telling?: boolean;
}
