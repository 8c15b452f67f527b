import { claimsOn, type Claim, type ClaimOn } from '../../claims';
import type { Context } from '../../link/context';
import { onceFor } from '../../basics/onceFor';
import { chosenParts } from '../../parts/chosen';
import type { PartOf } from '../../parts/schema';
import { dropAtPower, loopOhm, type Drop } from './lead';
import { computeUsbLoad, placeUsb, type UsbLoad, type UsbPlace } from './usb';
import type { PowerSettings } from './settings';

/** What is drawn at rest, in typical use and at most, W. */
export interface Watts {
	readonly idle: number;
	readonly typical: number;
	readonly peak: number;
	/** Typical, with the greatest surge of a part on top: the board itself runs already. */
	readonly surge: number;
	/** When power comes: the board's own surge, the others waiting. */
	readonly start: number;
}

/** What a board works at without complaint: above its warning, where it has one. */
export const goodFromV = (board: Pick<PartOf<'board'>, 'brownOutV' | 'warnsV'>): number =>
	board.warnsV ?? board.brownOutV;

/** From the supply along its lead to the board, and on to what hangs on it. */
export interface PowerPath {
	readonly supply: PartOf<'supply'>;
	readonly lead: { readonly name: string; readonly lengthM: number; readonly areaMm2: number } | null;
	readonly watts: Watts;
	readonly ratedW: number;
	readonly loopOhm: number;
	readonly at: Readonly<Record<keyof Watts, Drop | null>>;
	readonly usb: UsbLoad;
	readonly usbPlaces: readonly UsbPlace[];
	/** What the board's supply feeds, by who asked, in watts at the peak. */
	readonly who: readonly { readonly what: string; readonly peakW: number; readonly typicalW: number }[];
}

/** A lead that nobody chose, behind a supply that brings none. Typical of what lies in a drawer. */
const UNKNOWN_LEAD = { name: 'a cable nobody has chosen', lengthM: 1, areaMm2: 0.205 };

/** Null until a supply is chosen. */
export const computePath = onceFor(findPath);

function findPath(settings: PowerSettings, context: Context, claims: readonly Claim[]): PowerPath | null {
	const supply = context.part('supply', context.facts.parts.supply);
	if (!supply) return null;
	const board = context.part('board', context.facts.parts.board);
	const power = claimsOn(claims, 'power');
	const hubs = chosenParts(context).flatMap(({ part, count }) =>
		part.kind === 'hub' ? Array.from({ length: count }, () => part) : []
	);
	const sockets =
		board?.sockets.filter(({ way, plug }) => way === 'out' && (plug === 'usb-a' || plug === 'micro-usb')) ?? [];
	const usbPlaces = placeUsb(
		power,
		sockets.reduce((sum, { count }) => sum + count, 0),
		hubs
	);
	const watts = addUp(power, usbPlaces, board?.id ?? null);
	const lead = leadOf(settings, context, supply);
	const ohms = lead ? loopOhm(lead.lengthM, lead.areaMm2, settings.contactMilliohm / 1000) : 0;
	const at = (load: number): Drop | null => dropAtPower(supply.volts, ohms, load);
	return {
		supply,
		lead,
		watts,
		ratedW: supply.volts * supply.amperes,
		loopOhm: ohms,
		at: {
			idle: at(watts.idle),
			typical: at(watts.typical),
			peak: at(watts.peak),
			surge: at(watts.surge),
			start: at(watts.start)
		},
		usb: computeUsbLoad(usbPlaces),
		usbPlaces,
		who: power
			.filter(({ via }) => via !== 'mains')
			.map(({ what, peakW, typicalW, count }) => ({ what, peakW: peakW * count, typicalW: typicalW * count }))
	};
}

function leadOf(settings: PowerSettings, context: Context, supply: PartOf<'supply'>): PowerPath['lead'] {
	if (supply.lead) return { name: 'its own cable', ...supply.lead };
	const chosen = context.part('lead', context.facts.parts.lead);
	return chosen?.areaMm2 ? { name: chosen.name, lengthM: chosen.lengthM, areaMm2: chosen.areaMm2 } : UNKNOWN_LEAD;
}

/** Everything that the board's supply feeds; what a powered hub or the mains feed does not count. */
function addUp(power: readonly ClaimOn<'power'>[], usbPlaces: readonly UsbPlace[], boardId: string | null): Watts {
	const fedElsewhere = new Map<string, number>();
	for (const place of usbPlaces)
		if (place.at === 'powered hub') fedElsewhere.set(place.what, (fedElsewhere.get(place.what) ?? 0) + 1);
	const fed = power
		.filter(({ via }) => via !== 'mains')
		.map((claim) => ({ claim, count: claim.count - (claim.via === 'usb' ? (fedElsewhere.get(claim.what) ?? 0) : 0) }));
	const sum = (pick: (claim: (typeof power)[number]) => number): number =>
		fed.reduce((total, { claim, count }) => total + pick(claim) * count, 0);
	const typical = sum((claim) => claim.typicalW);
	const isBoard = ({ part }: ClaimOn<'power'>): boolean => part === boardId;
	const beside = fed.filter(({ claim, count }) => count > 0 && !isBoard(claim));
	return {
		idle: sum((claim) => claim.idleW),
		typical,
		peak: sum((claim) => claim.peakW),
		surge: typical + Math.max(0, ...beside.map(({ claim }) => claim.surgeW - claim.typicalW)),
		start: sum((claim) => (isBoard(claim) ? claim.surgeW : claim.idleW))
	};
}
