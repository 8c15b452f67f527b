import type { Context, Link } from '../link';
import type { Plan } from '../plan/plan';
import { collectClaims } from './assess';
import type { Bench } from './machine';

/** Surroundings in which nothing is there. */
const BARE: Bench = {
	board: {
		name: 'a board of no particular class',
		firmwareMs: 3000,
		kernelMs: 5000,
		servicesMs: 4000,
		hasClock: false
	},
	power: null,
	header: null,
	heat: null,
	soundCards: [],
	amplifier: null,
	speakers: null,
	distanceM: 1,
	network: { wired: true, radio: null, joinMs: 0, visitors: [] },
	streams: [],
	media: []
};

/** The surroundings that a plan expects, each part of them told by the link that deals in it. */
export function benchFor(chain: readonly Link[], plan: Plan, context: Context): Bench {
	const claims = collectClaims(chain, plan, context);
	return Object.assign({}, BARE, ...chain.map((link) => link.bench?.(plan, context, claims) ?? {})) as Bench;
}
