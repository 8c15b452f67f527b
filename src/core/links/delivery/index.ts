/**
 * The delivery: pages, lists and media come to the endpoint as a set that it fetches by itself. Start at `pack.ts` (what a set is)
 * and `scripts.ts` (what the endpoint does with it).
 */
import type { Link } from '../../link';
import { deliveryClaims } from './claims';
import { DELIVERY_FAULTS } from './faults';
import { deliveryFigures } from './figures';
import { CALM_DELIVERY, deliverySettings, type DeliverySettings } from './settings';
import './offers';

/** The link by which content changes without the card. */
export const delivery: Link<'delivery', DeliverySettings> = {
	id: 'delivery',
	title: 'Delivery',
	settings: deliverySettings,
	version: 2,
	migrations: { 1: (saved) => ({ era: 0, ...saved }) },
	empty: () => CALM_DELIVERY,
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'j',
	place: { column: 'world', row: 2, half: 'left', wires: [{ to: 'card', carries: 'data' }] },
	publish: () => ({ fetchesContent: true }),
	faults: DELIVERY_FAULTS,
	claims: deliveryClaims,
	figures: deliveryFigures
};
