import type { Change, Changes } from '../changes';
import type { Facts } from '../facts';
import type { Media } from '../parts/media';
import type { Part, PartKind, PartOf } from '../parts/schema';
import type { ProbeFacts } from '../parts/probeFacts';
import type { Venue } from '../plan/venue';

/** What an endpoint sees of another one: who it is on the network, and what it takes there. */
export type Neighbour = Pick<Facts, 'endpointName' | 'hostName' | 'address' | 'receiving'>;

/** The rest of the workshop, as far as a plan refers to it. */
export interface Surroundings {
	readonly venue: Venue;
	/** The part with this id, when it is in the drawer and of this kind; a board as far as it is probed, as it is. */
	part<K extends PartKind>(kind: K, id: string | null): PartOf<K> | null;
	/** Any part, own or shipped, by its id, as the drawer has it. */
	find(id: string): Part | null;
	/** Own parts, then the shipped ones. */
	readonly drawer: readonly Part[];
	media(location: string): Media | null;
	/** All that is known to lie in that folder and below. */
	mediaBelow(folder: string): readonly Media[];
	/** The app is to have the bytes of that file, and does not. */
	isAbsent(location: string): boolean;
	readonly probe: ProbeFacts | null;
	/** What the workshop's other endpoints publish. */
	readonly others: readonly Neighbour[];
}

/** All that a link sees besides its own settings: the workshop, what the other links publish, and what they let it change. */
export interface Context extends Surroundings {
	readonly facts: Facts;
	readonly change: Changes;
	/** The same after a change, to see what it would bring. */
	suppose(change: Change): Context;
}
