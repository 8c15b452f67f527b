import type { PartKind } from '../../parts/schema';
import type { PartPlace } from './settings';

/** The places that parts fill, in the order in which one chooses them. */
export const places: readonly {
	readonly key: PartPlace;
	readonly kind: PartKind;
	readonly label: string;
	readonly needed: boolean;
}[] = [
	{ key: 'board', kind: 'board', label: 'Board', needed: true },
	{ key: 'supply', kind: 'supply', label: 'Power supply', needed: true },
	{ key: 'lead', kind: 'lead', label: 'Power cable', needed: false },
	{ key: 'card', kind: 'card', label: 'Memory card', needed: true },
	{ key: 'converter', kind: 'converter', label: 'Output', needed: true },
	{ key: 'amplifier', kind: 'amplifier', label: 'Amplifier', needed: false },
	{ key: 'speakers', kind: 'speakers', label: 'Speakers', needed: false },
	{ key: 'screen', kind: 'screen', label: 'Screen', needed: false },
	{ key: 'case', kind: 'case', label: 'Case', needed: false },
	{ key: 'cooler', kind: 'cooler', label: 'Heatsink', needed: false }
];
