import type { Plan } from '../plan/plan';
import type { SettingPath } from './setting';

/** How grave a finding is: nothing works, something suffers, worth knowing. */
export type Level = 'stop' | 'caution' | 'note';

/** One press that ends a finding. */
export interface Fix {
	readonly label: string;
	/** At an instant, where it matters when it is pressed. */
	apply(plan: Plan, nowUtcMs?: number): Plan;
}

/** Something that is wrong or worth knowing. */
export interface Finding {
	readonly id: string;
	readonly level: Level;
	readonly title: string;
	/** Why it matters, measured against its limit, and what to do. */
	readonly why: string;
	readonly setting?: SettingPath;
	readonly fixes: readonly Fix[];
}
