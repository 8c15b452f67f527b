import { groupBy } from './basics/groupBy';

interface ClaimBase {
	readonly from: string;
	/** Who asks, in words: "USB converter", "Harbour Radio". */
	readonly what: string;
}

/** What can be claimed, by resource; each owner adds its own in its `offers.ts`, so that a new resource costs no line here. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- joined from the owners' declarations
export interface ClaimTypes {}
/** Names of what can be claimed. */
export type Resource = keyof ClaimTypes;

/** A claim on one resource. */
export type ClaimOn<R extends Resource> = ClaimBase & { readonly on: R } & ClaimTypes[R];
/** What one link needs of a resource that another owns. The owner adds up the claims on it and judges them. */
export type Claim = { [R in Resource]: ClaimOn<R> }[Resource];

const sorted = new WeakMap<readonly Claim[], ReadonlyMap<Resource, readonly Claim[]>>();

/** The claims on one resource. Owners ask again and again, so a list is sorted by resource once; it must not change afterwards. */
export function claimsOn<R extends Resource>(claims: readonly Claim[], resource: R): readonly ClaimOn<R>[] {
	let by = sorted.get(claims);
	if (!by) sorted.set(claims, (by = groupBy(claims, ({ on }) => on)));
	return (by.get(resource) ?? []) as unknown as readonly ClaimOn<R>[];
}
