import type { Plan } from '../plan/plan';

type Key<S> = keyof S & string;
type Below<V> = V extends readonly (infer E)[]
	? `${number}` | (E extends object ? `${number}.${Key<E>}` : never)
	: V extends object
		? string extends keyof V
			? string
			: Key<V>
		: never;
type PathIn<S> = { [K in Key<S>]: K | `${K}.${Below<NonNullable<S[K]>>}` }[Key<S>];
/** A setting's place in the plan, such as "sound.cardId" or "programme.quiet.0"; only those that the schemas have. */
export type SettingPath = { [L in Key<Plan>]: L | `${L}.${PathIn<Plan[L]>}` }[Key<Plan>];
