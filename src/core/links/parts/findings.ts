import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { chosenOf } from '../../parts/chosen';
import { mayHaveMemory } from '../../parts/measured';
import type { Part, PartOf } from '../../parts/schema';
import { distinct } from '../../basics/distinct';
import { withPart } from './change';
import { judgeBoard, rankBoards } from './chooser';
import { computeJoints, feedOf, type Joint } from './joints';
import { places } from './places';
import type { PartsSettings, PartPlace } from './settings';

const own = changing<PartsSettings>('parts');

/** Places without a part, parts that do not join, and boards that cannot do what is wished. */
export const assessParts = (settings: PartsSettings, context: Context): Finding[] => [
	...assessPlaces(settings, context),
	...assessAlso(settings, context),
	...assessBoard(settings, context),
	...distinct(computeJoints(settings, context).flatMap((joint) => assessJoint(joint, settings, context))),
	...assessFeeds(settings, context),
	...assessNetworkLead(settings, context)
];

/** Every place that must be filled. */
function assessPlaces(settings: PartsSettings, context: Context): Finding[] {
	return places.flatMap(({ key, kind, label, ...place }): Finding[] => {
		// Who is silent by plan needs no output.
		const needed = place.needed && !(key === 'converter' && context.facts.cardId === undefined);
		const id = settings[key];
		if (context.part(kind, id) || (!needed && id === null)) return [];
		const word = label.toLowerCase();
		return [
			{
				id: `parts.no-${key}`,
				level: needed ? 'stop' : 'caution',
				title: id === null ? `No ${word} chosen` : `The ${word} is no longer in the drawer`,
				why: needed
					? 'Without it nothing can be worked out. Choose one; you can change it later.'
					: 'It counts for nothing until you choose another, or import the file that has it.',
				setting: `parts.${key}`,
				fixes: offered(key, kind, settings, context).map((part) => ({
					label: `Use ${part.name}`,
					apply: own({ [key]: part.id })
				}))
			}
		];
	});
}

/** What to offer for an empty place: boards by how well they fit, the rest as far as they can be joined, in the order of the drawer. */
function offered(key: PartPlace, kind: Part['kind'], settings: PartsSettings, context: Context): Part[] {
	if (kind === 'board')
		return rankBoards(settings, context)
			.filter(({ fits }) => fits)
			.map(({ board }) => board)
			.slice(0, 3);
	const canBeJoined = (part: Part): boolean =>
		computeJoints({ ...settings, [key]: part.id }, context).every(
			({ from, to, by, missing }) => (from !== part && to !== part) || by !== null || missing !== null
		);
	return context.drawer.filter((part) => part.kind === kind && canBeJoined(part)).slice(0, 3);
}

function assessAlso(settings: PartsSettings, context: Context): Finding[] {
	return settings.also
		.filter(({ part }) => context.find(part) === null)
		.map(({ part }, n) => ({
			id: `parts.gone-${n}`,
			level: 'caution',
			title: 'A part of the list is no longer in the drawer',
			why: `Its id was ${part}. It counts for nothing until you import the file that has it, or take it off the list.`,
			setting: 'parts.also',
			fixes: [
				{
					label: 'Take it off the list',
					apply: own((parts) => ({ ...parts, also: parts.also.filter((item) => item.part !== part) }))
				}
			]
		}));
}

function assessBoard(settings: PartsSettings, context: Context): Finding[] {
	const board = context.find(settings.board ?? '');
	if (board?.kind !== 'board') return [];
	const foundMb = context.probe?.memoryMb;
	if (foundMb && !mayHaveMemory(board, foundMb))
		return [
			{
				id: 'parts.other-board',
				level: 'caution',
				title: 'The probed board is not the one in the plan',
				why: `The report says ${foundMb}\u2009MB of memory; ${board.name} has ${board.memoryMb}\u2009MB. Power and starting times are worked out for the plan's board.`,
				setting: 'parts.board',
				fixes: context.drawer
					.flatMap((part) => (part.kind === 'board' && mayHaveMemory(part, foundMb) ? [part] : []))
					.slice(0, 3)
					.map(useBoard)
			}
		];
	const short = judgeBoard(board, settings, context).reasons.filter(({ good }) => !good);
	if (short.length === 0) return [];
	return [
		{
			id: 'parts.board-falls-short',
			level: 'caution',
			title: `${board.name} does not do all that is asked`,
			why: `${short.map(({ what, words }) => `${what}: ${words}`).join('; ')}. The list under Brief has every board with its reasons.`,
			setting: 'parts.board',
			fixes: rankBoards(settings, context)
				.filter(({ fits }) => fits)
				.slice(0, 2)
				.map((known) => useBoard(known.board))
		}
	];
}

const useBoard = (board: PartOf<'board'>): Fix => ({
	label: `Use ${board.name}`,
	apply: own({ board: board.id })
});

const CARGO_WORDS = {
	power: 'power',
	picture: 'picture',
	sound: 'sound',
	touch: 'touch',
	data: 'data',
	aerial: 'aerial'
};

function assessJoint(joint: Joint, settings: PartsSettings, context: Context): Finding[] {
	const { from, to, by, missing, cargo, ends, full } = joint;
	const at = { id: `parts.joint.${from.id}.${to.id}.${cargo}`, setting: 'parts.also' as const };
	if (by) return assessLost(joint, at, settings, context);
	if (missing?.length)
		return [
			{
				...at,
				level: 'caution',
				title: `Nothing joins ${from.name} and ${to.name}`,
				why: `From ${ends} it takes ${missing.map(({ name }) => name).join(' and ')}. Without it the ${CARGO_WORDS[cargo]} does not arrive.`,
				fixes: [addLeads(missing, cargo)]
			},
			...assessLost(joint, { ...at, id: `${at.id}-lost` }, settings, context)
		];
	if (full)
		return [
			{
				...at,
				level: 'stop',
				title: `No socket is left for ${to.name}`,
				why: `Every socket of ${from.name} that would do is taken. A hub adds sockets; one with its own supply adds power too.`,
				fixes: context.drawer
					.filter((part) => part.kind === 'hub')
					.slice(0, 2)
					.map((hub) => ({ label: `Add ${hub.name}`, apply: own((parts) => withPart(parts, hub.id)) }))
			}
		];
	return [
		{
			...at,
			level: 'stop',
			title: `${from.name} cannot be joined to ${to.name}`,
			why: `From ${ends} there is no cable or adapter in the drawer that carries the ${CARGO_WORDS[cargo]}. Choose another part at one of the ends, or add a cable of your own to the drawer.`,
			fixes: otherEnds(joint, settings, context)
		}
	];
}

const addLeads = (leads: readonly PartOf<'lead'>[], cargo: Joint['cargo']): Fix => ({
	label: `Add ${leads.map(({ name }) => name).join(' and ')}`,
	apply: own((parts) =>
		leads.reduce(
			(changed, lead, n) =>
				n === 0 && cargo === 'power' && lead.areaMm2 && changed.lead === null
					? { ...changed, lead: lead.id }
					: withPart(changed, lead.id),
			parts
		)
	)
});

/** Amplifiers and converters in whose place a way exists, the cheapest first. */
function otherEnds({ from, to }: Joint, settings: PartsSettings, context: Context): Fix[] {
	const place = places.find(({ kind }) => kind === to.kind) ?? places.find(({ kind }) => kind === from.kind);
	if (!place || (place.key !== 'amplifier' && place.key !== 'screen' && place.key !== 'supply')) return [];
	return context.drawer
		.filter((part) => part.kind === place.kind)
		.map((part) => ({ part, changed: { ...settings, [place.key]: part.id } }))
		.filter(({ changed }) =>
			computeJoints(changed, context)
				.filter((joint) => joint.from.kind === from.kind && joint.to.kind === to.kind)
				.every(({ by, missing }) => by !== null || missing !== null)
		)
		.sort((a, b) => (a.part.price ?? 0) - (b.part.price ?? 0))
		.slice(0, 2)
		.map(({ part }) => ({
			label: `Use ${part.name}`,
			apply: own({ [place.key]: part.id })
		}));
}

/** What a lead does not carry matters when nothing else brings it. */
function assessLost(
	{ from, to, lost }: Joint,
	at: { id: string; setting: 'parts.also' },
	settings: PartsSettings,
	context: Context
): Finding[] {
	const converter = context.part('converter', settings.converter);
	if (!lost.includes('sound') || to.kind !== 'screen') return [];
	if (converter?.joint !== 'display') return [];
	const jack = context.drawer.find((part) => part.kind === 'converter' && part.joint === 'jack');
	return [
		{
			...at,
			level: 'stop',
			title: 'This way to the screen carries no sound',
			why: `From ${from.name} to ${to.name} only the picture arrives, and the plan sends the sound along with it. Take the sound from a converter or from the board\u2019s own jack.`,
			fixes: jack ? [{ label: `Use ${jack.name}`, apply: own({ converter: jack.id }) }] : []
		}
	];
}

/** What drives speakers and has no mains lead needs a direct voltage of its own, never the board's. */
function assessFeeds(settings: PartsSettings, context: Context): Finding[] {
	const further = chosenOf(settings, context).flatMap(({ part, count }) =>
		part.kind === 'supply' ? Array.from({ length: count }, () => part) : []
	);
	if (context.find(settings.supply ?? '')) further.shift();
	return (['converter', 'amplifier'] as const).flatMap((place): Finding[] => {
		const part = context.find(settings[place] ?? '');
		const feed = part && feedOf(part);
		if (!part || !feed) return [];
		const peakW = (part.kind === 'converter' ? part.amplifier?.draw : part.draw)?.peakW ?? 0;
		const fits = ({ volts, amperes }: PartOf<'supply'>): boolean =>
			volts >= feed.lowestV && volts <= feed.highestV && volts * amperes >= peakW;
		const found = further.findIndex(fits);
		if (found >= 0) {
			further.splice(found, 1);
			return [];
		}
		return [
			{
				id: `parts.no-feed.${place}`,
				level: 'stop',
				title: `${part.name} has no supply of its own`,
				why: `It is a bare board that wants ${feed.lowestV} to ${feed.highestV}\u2009V and up to ${peakW}\u2009W. The board\u2019s 5\u2009V cannot give that, and a higher voltage than it takes destroys it.`,
				setting: 'parts.also',
				fixes: context.drawer
					.flatMap((known) => (known.kind === 'supply' && fits(known) ? [known] : []))
					.sort((a, b) => (a.price ?? 0) - (b.price ?? 0))
					.slice(0, 2)
					.map((supply) => ({ label: `Add ${supply.name}`, apply: own((parts) => withPart(parts, supply.id)) }))
			}
		];
	});
}

/** The router is no part of the plan, the lead to it is. */
function assessNetworkLead(settings: PartsSettings, context: Context): Finding[] {
	const isNetworkLead = (part: Part): boolean =>
		part.kind === 'lead' && part.ends.some(({ plug }) => plug === 'network');
	if (context.facts.way !== 'wired' || chosenOf(settings, context).some(({ part }) => isNetworkLead(part))) return [];
	return [
		{
			id: 'parts.no-network-lead',
			level: 'note',
			title: 'The Ethernet cable is not on the list',
			why: 'The endpoint is wired to the network. Measure the way to the router, then choose a length.',
			setting: 'parts.also',
			fixes: context.drawer
				.filter(isNetworkLead)
				.slice(0, 2)
				.map((lead) => ({ label: `Add ${lead.name}`, apply: own((parts) => withPart(parts, lead.id)) }))
		}
	];
}

export default assessParts satisfies Judge<PartsSettings>;
