import { csvCell } from '../basics/csv';
import { claimsOn } from '../claims';
import type { Link } from '../link';
import type { Part, PartOf } from '../parts/schema';
import type { Workshop } from '../plan/workshop';
import { assess } from './assess';
import { derive } from './derive';
import { contextFor, drawerOf } from './context';

declare module '../claims' {
	interface ClaimTypes {
		/** Parts to be had. */
		shop: { readonly part: string; readonly count: number };
	}
}

/** One part of the list, in pieces and in the venue’s currency. */
interface ShoppingLine {
	readonly part: Part;
	readonly needed: number;
	readonly there: number;
	readonly toBuy: number;
	/** Null when the part has no price. */
	readonly cost: number | null;
	/** Endpoints that need it. */
	readonly forWhom: readonly string[];
}

/** What is to be bought, and what it comes to. */
interface ShoppingList {
	readonly lines: readonly ShoppingLine[];
	readonly partsCost: number;
	readonly shippingCost: number;
	readonly total: number;
	/** Parts to buy whose price nobody has said. */
	readonly unpriced: number;
	/** Kits that cover some of it, the best saving first; a negative saving costs more. */
	readonly kits: readonly KitOffer[];
}

/** A kit against buying its contents apart. */
interface KitOffer {
	readonly kit: PartOf<'kit'>;
	/** What its contents would cost apart, as far as they are needed. */
	readonly apart: number;
	readonly saving: number;
	readonly unneeded: readonly string[];
}

/** What some endpoints need together: kinds merged, what is there already taken off, shipping on top. */
export function shoppingList(chain: readonly Link[], workshop: Workshop, endpointIds: readonly string[]): ShoppingList {
	const { byId, drawer } = drawerOf(workshop.parts);
	const needed = new Map<string, { count: number; forWhom: Set<string> }>();
	for (const { id, plan } of workshop.endpoints.filter((endpoint) => endpointIds.includes(endpoint.id))) {
		const { claims, context } = derive(chain, plan, contextFor(chain, workshop, id));
		for (const claim of claimsOn(claims, 'shop')) {
			const entry = needed.get(claim.part) ?? { count: 0, forWhom: new Set<string>() };
			entry.count += claim.count;
			needed.set(claim.part, { ...entry, forWhom: entry.forWhom.add(context.facts.endpointName) });
		}
	}
	const lines = [...needed].flatMap(([id, { count, forWhom }]): ShoppingLine[] => {
		const part = byId.get(id);
		if (!part) return [];
		const there = Math.min(count, workshop.owned[id] ?? 0);
		const toBuy = count - there;
		return [
			{
				part,
				needed: count,
				there,
				toBuy,
				cost: part.price === null ? null : toBuy * part.price,
				forWhom: [...forWhom]
			}
		];
	});
	const partsCost = lines.reduce((sum, { cost }) => sum + (cost ?? 0), 0);
	const shippingCost = lines.some(({ toBuy }) => toBuy > 0)
		? workshop.shipping.reduce((sum, { price }) => sum + price, 0)
		: 0;
	return {
		lines,
		partsCost,
		shippingCost,
		total: partsCost + shippingCost,
		unpriced: lines.filter(({ toBuy, cost }) => toBuy > 0 && cost === null).length,
		kits: kitOffers(lines, drawer)
	};
}

/** Each kit against the same things bought apart. A kit without the board that is needed is no offer. */
function kitOffers(lines: readonly ShoppingLine[], drawer: readonly Part[]): KitOffer[] {
	return drawer
		.flatMap((part) => (part.kind === 'kit' && part.price !== null ? [part] : []))
		.flatMap((kit): KitOffer[] => {
			let apart = 0;
			const unneeded: string[] = [];
			let hasBoard = false;
			for (const { part, count } of kit.contains) {
				const line = lines.find((known) => known.part.id === part);
				const used = Math.min(count, line?.toBuy ?? 0);
				apart += used * (line?.part.price ?? 0);
				hasBoard ||= used > 0 && line?.part.kind === 'board';
				if (used < count) unneeded.push(part);
			}
			return hasBoard ? [{ kit, apart, saving: apart - kit.price!, unneeded }] : [];
		})
		.sort((a, b) => b.saving - a.saving);
}

/** The list as comma-separated values. Source: RFC 4180; UTF-8, CRLF. */
export function shoppingCsv(list: ShoppingList, workshop: Workshop): string {
	const rows: (string | number)[][] = [
		[
			'part',
			'needed',
			'there already',
			'to buy',
			`each ${workshop.venue.currency}`,
			`together ${workshop.venue.currency}`,
			'for'
		],
		...list.lines.map((line) => [
			line.part.name,
			line.needed,
			line.there,
			line.toBuy,
			line.part.price?.toFixed(2) ?? '',
			line.cost?.toFixed(2) ?? '',
			line.forWhom.join('; ')
		]),
		...(list.shippingCost > 0
			? workshop.shipping.map(({ label, price }) => [label, 1, 0, 1, price.toFixed(2), price.toFixed(2), 'shipping'])
			: []),
		['total', '', '', '', '', list.total.toFixed(2), '']
	];
	return rows.map((row) => row.map(csvCell).join(',')).join('\r\n') + '\r\n';
}

/** What one endpoint takes in a year, kWh and the venue’s currency. */
interface CostOfUse {
	readonly id: string;
	readonly name: string;
	readonly kwhPerYear: number;
	readonly costPerYear: number;
}

/** What a year of use takes from the wall, for each endpoint that has a supply. */
export const costOfUse = (chain: readonly Link[], workshop: Workshop, endpointIds: readonly string[]): CostOfUse[] =>
	workshop.endpoints
		.filter(({ id }) => endpointIds.includes(id))
		.flatMap(({ id, plan }) => {
			const surroundings = contextFor(chain, workshop, id);
			const name = derive(chain, plan, surroundings).context.facts.endpointName;
			const kwhPerYear = assess(chain, plan, surroundings)
				.links.flatMap(({ figures }) => figures)
				.find((figure) => figure.id === 'energy')?.value;
			return kwhPerYear === null || kwhPerYear === undefined
				? []
				: [{ id, name, kwhPerYear, costPerYear: kwhPerYear * workshop.venue.pricePerKwh }];
		});
