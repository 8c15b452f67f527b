import type { Surroundings } from '../../link/context';
import { chosenOf, type Chosen } from '../../parts/chosen';
import { meets, PLUGS, type Cargo, type End } from '../../parts/plugs';
import type { Part, PartOf, Socket } from '../../parts/schema';
import type { PartsSettings } from './settings';

type Lead = PartOf<'lead'>;

/** Two parts that must be joined, and what has to pass between them. */
export interface Joint {
	readonly from: Part;
	readonly to: Part;
	readonly cargo: Cargo;
	/** What joins them, in order, out of the leads at hand; empty when they meet directly. Null: nothing at hand does. */
	readonly by: readonly Lead[] | null;
	/** The least that would have to be added, out of the whole drawer; null when no way is known. */
	readonly missing: readonly Lead[] | null;
	/** Every socket that would do is taken already. */
	readonly full: boolean;
	/** Cargo that gets lost on the way although one end has it. */
	readonly lost: readonly Cargo[];
	/** In words: "USB-A to Micro-USB". */
	readonly ends: string;
}

/** More than this many leads in a row is a chain that nobody builds. */
const LONGEST = 3;

/** Asked for by figures, findings, steps and drawing alike; worked out once for the same parts and drawer. */
const known = new WeakMap<PartsSettings, { drawer: Surroundings['drawer']; joints: readonly Joint[] }>();

/** Every joint that the plan needs, in the order of the signal, each with what makes it. Leads at hand are used once. */
export function computeJoints(settings: PartsSettings, context: Surroundings): readonly Joint[] {
	const found = known.get(settings);
	if (found?.drawer === context.drawer) return found.joints;
	const joints = findJoints(settings, context);
	known.set(settings, { drawer: context.drawer, joints });
	return joints;
}

function findJoints(settings: PartsSettings, context: Surroundings): Joint[] {
	const chosen = chosenOf(settings, context);
	const drawer = leadsOf(context.drawer);
	const atHand = cheapestFirst(
		chosen.flatMap(({ part, count }) => (part.kind === 'lead' ? Array.from({ length: count }, () => part) : []))
	);
	const free = new FreeSockets();
	return neededJoints(chosen).map(({ from, to, cargo }) => {
		const outs = free.of(from, 'out', cargo);
		const ins = free.of([to], 'in', cargo);
		const by = shortest(outs, ins, atHand, cargo);
		const missing = by ? null : shortest(outs, ins, drawer, cargo);
		const path = by ?? missing;
		for (const lead of by?.leads ?? []) atHand.splice(atHand.indexOf(lead), 1);
		if (path) free.take(path.out, path.in);
		const out = path?.out.socket ?? socketsOf(from, 'out', cargo)[0]?.socket;
		const into = path?.in.socket ?? socketsOf([to], 'in', cargo)[0]?.socket;
		return {
			from: path?.out.part ?? from[0]!,
			to,
			cargo,
			by: by?.leads ?? null,
			missing: missing?.leads ?? null,
			full:
				path === null && shortest(socketsOf(from, 'out', cargo), socketsOf([to], 'in', cargo), drawer, cargo) !== null,
			lost: path ? lostOn(path) : [],
			ends: `${out ? PLUGS[out.plug].words : 'nothing'} to ${into ? PLUGS[into.plug].words : 'nothing'}`
		};
	});
}

const sorted = new WeakMap<Surroundings['drawer'], readonly Lead[]>();
function leadsOf(drawer: Surroundings['drawer']): readonly Lead[] {
	let leads = sorted.get(drawer);
	if (!leads) sorted.set(drawer, (leads = cheapestFirst(drawer.filter((part) => part.kind === 'lead'))));
	return leads;
}

/** Of equal price the shorter one. */
const cheapestFirst = (leads: readonly Lead[]): Lead[] =>
	[...leads].sort((a, b) => (a.price ?? 0) - (b.price ?? 0) || a.lengthM - b.lengthM);

/** A socket and whose it is. */
interface Place {
	readonly part: Part;
	readonly socket: Socket;
}

const socketsOf = (parts: readonly Part[], way: Socket['way'], cargo: Cargo): Place[] =>
	parts.flatMap((part) =>
		part.sockets
			.filter((socket) => socket.way === way && socket.carries.includes(cargo))
			.map((socket) => ({ part, socket }))
	);

/** Sockets as they are used up. The header is never full here: its own link judges who takes which pins. */
class FreeSockets {
	readonly #used = new Map<Socket, number>();
	of(parts: readonly Part[], way: Socket['way'], cargo: Cargo): Place[] {
		return socketsOf(parts, way, cargo).filter(
			({ socket }) => socket.plug === 'header' || (this.#used.get(socket) ?? 0) < socket.count
		);
	}
	take(...places: Place[]): void {
		for (const { socket } of places) this.#used.set(socket, (this.#used.get(socket) ?? 0) + 1);
	}
}

/** Parts that the board, or a hub on it, must reach to exchange data. */
const DATA_KINDS: readonly Part['kind'][] = ['drive', 'tuner', 'video-adapter', 'network-adapter'];

/** Who must be joined to whom: power, the board's devices, sound, picture, touch, aerial. `from` lists all who may give. */
function neededJoints(chosen: readonly Chosen[]): { from: Part[]; to: Part; cargo: Cargo }[] {
	const one = <K extends Part['kind']>(kind: K): PartOf<K> | null =>
		(chosen.find(({ part }) => part.kind === kind)?.part as PartOf<K> | undefined) ?? null;
	const every = (kinds: readonly Part['kind'][]): Part[] =>
		chosen
			.filter(({ part }) => kinds.includes(part.kind))
			// Each of several is a thing of its own, with sockets of its own.
			.flatMap(({ part, count }) =>
				Array.from(
					{ length: count },
					() => ({ ...part, sockets: part.sockets.map((socket) => ({ ...socket })) }) as Part
				)
			);
	const joints: { from: Part[]; to: Part; cargo: Cargo }[] = [];
	const join = (from: readonly (Part | null)[], to: Part | null, cargo: Cargo): void => {
		const givers = from.filter((part) => part !== null);
		if (givers.length && to) joints.push({ from: givers, to, cargo });
	};
	const board = one('board');
	const converter = one('converter');
	const amplifier = one('amplifier');
	const screen = one('screen');
	const hubs = every(['hub']);
	join([one('supply')], board, 'power');
	for (const hub of hubs) join([board], hub, 'data');
	// Sound by jack or display lead leaves the board itself.
	const ownSound = converter?.joint === 'jack' || converter?.joint === 'display';
	if (!ownSound) join([board, ...hubs], converter, 'data');
	for (const device of every(DATA_KINDS)) join([board, ...hubs], device, 'data');
	for (const part of [amplifier, screen])
		if (part?.draw?.via === 'usb' && !isFedByTouchLead(part)) join([board, ...hubs], part, 'power');
	// What is put into the way of the sound, one after the other.
	const between = every(['sound-accessory']);
	const extractor = between.find(({ sockets }) => sockets.some(({ carries }) => carries.includes('picture'))) ?? null;
	let giver: Part | null = ownSound ? board : converter;
	for (const accessory of between) {
		join([giver], accessory, 'sound');
		if (accessory.sockets.some(({ way, carries }) => way === 'out' && carries.includes('sound'))) giver = accessory;
		if (accessory.draw?.via === 'usb') join([board, ...hubs], accessory, 'power');
	}
	if (amplifier && (extractor || !(converter?.joint === 'display' && screen))) join([giver], amplifier, 'sound');
	const driver = amplifier ?? (converter?.amplifier ? converter : null);
	if (!amplifier?.builtIn) join([driver], one('speakers'), 'sound');
	const [, ...furtherSupplies] = every(['supply']);
	for (const part of [converter, amplifier]) if (part && feedOf(part)) join(furtherSupplies, part, 'power');
	join([one('video-adapter') ?? extractor ?? board], screen, 'picture');
	if (screen?.touch && !isTouchedThroughPicture(screen)) join([board, ...hubs], screen, 'touch');
	const splitter = one('splitter');
	join([one('antenna')], splitter, 'aerial');
	for (const tuner of every(['tuner'])) join([splitter ?? one('antenna')], tuner, 'aerial');
	return joints;
}

/** The supply of its own that a part needs; null when it needs none. */
export const feedOf = (part: Part): { readonly lowestV: number; readonly highestV: number } | null =>
	part.kind === 'amplifier' ? part.feed : part.kind === 'converter' ? (part.amplifier?.feed ?? null) : null;

/** One lead carries touch one way and power the other. */
const isFedByTouchLead = (part: Part): boolean =>
	part.sockets.some(({ carries }) => carries.includes('touch') && carries.includes('power'));
const isTouchedThroughPicture = (screen: Part): boolean =>
	screen.sockets.some(({ carries }) => carries.includes('picture') && carries.includes('touch'));

interface Path {
	readonly leads: readonly Lead[];
	readonly out: Place;
	readonly in: Place;
}

/** The fewest leads from any of these sockets to any of those; the cheapest of equals. Leads come cheapest first. */
function shortest(outs: readonly Place[], ins: readonly Place[], leads: readonly Lead[], cargo: Cargo): Path | null {
	const usable = leads.filter(({ carries }) => carries.includes(cargo));
	let open = outs.map((out) => ({ end: out.socket as End, out, leads: [] as readonly Lead[] }));
	const seen = new Set<string>();
	for (let length = 0; length <= LONGEST; length++) {
		for (const { end, out, leads: used } of open) {
			const into = ins.find(({ socket }) => meets(end, socket));
			if (into) return { leads: used, out, in: into };
		}
		open = open.flatMap(({ end, out, leads: used }) =>
			usable.flatMap((lead) =>
				farEnds(lead, end).flatMap((far) => {
					const key = `${far.plug}${far.male}`;
					if (seen.has(key)) return [];
					seen.add(key);
					return [{ end: far, out, leads: [...used, lead] }];
				})
			)
		);
	}
	return null;
}

/** Where one comes out when one end of the lead meets this. */
const farEnds = ({ ends: [a, b] }: Lead, end: End): End[] => [
	...(meets(end, a) ? [b] : []),
	...(meets(end, b) ? [a] : [])
];

/** Sound and touch that the giver has and a lead, or the taker, does not take on. */
const lostOn = ({ leads, out, in: into }: Path): Cargo[] =>
	(['sound', 'touch'] as const).filter(
		(cargo) =>
			out.socket.carries.includes(cargo) &&
			out.socket.carries.includes('picture') &&
			(leads.some(({ carries }) => !carries.includes(cargo)) || !into.socket.carries.includes(cargo))
	);
