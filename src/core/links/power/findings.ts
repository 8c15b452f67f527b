import type { Claim } from '../../claims';
import { formatSeconds, withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import type { PartOf } from '../../parts/schema';
import { computeHoldUpSec } from './energy';
import { assessInlet } from './assessInlet';
import { holdUpOf } from './figures';
import { dropAtPower, loopOhm } from './lead';
import { computePath, goodFromV, type PowerPath } from './powerPath';
import type { PowerSettings } from './settings';

/** A supply that works at more than this part of its rating runs hot and sags. */
const COMFORT = 0.8;
/** Supplies called 5 V and 5.1 V serve the same boards. */
const RAIL_TOLERANCE_V = 0.25;
/** Below this the next hot day or a worn plug brings the brown-out. */
const THIN_MARGIN_V = 0.1;

/** No tick where nothing has been worked out. */
const UNKNOWN: Finding = {
	id: 'power.unknown',
	level: 'note',
	title: 'Nothing can be said of the power yet',
	why: 'Choose a board and a supply among the parts; then load, voltage and margin stand here.',
	setting: 'parts.supply',
	fixes: []
};

/** Whether the volts arrive, with what spare, and what would bring them. */
export function assessPower(settings: PowerSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const path = computePath(settings, context, claims);
	const board = context.part('board', context.facts.parts.board);
	if (!path || !board) return [UNKNOWN, ...assessInlet(settings, context)];
	return [
		...assessRail(path, board, context),
		...assessSupply(path, board, context),
		...assessLead(settings, path, board, context),
		...assessUsb(path, board, context),
		...assessHoldUp(settings, path, context),
		...assessInlet(settings, context),
		...assessAlarm(path, board, context)
	];
}

const fits = (part: PartOf<'supply'>, board: PartOf<'board'>, like: PartOf<'supply'>): boolean => {
	const ownRail = railOf(board);
	const rail = ownRail ?? like.volts;
	return Math.abs(part.volts - rail) <= RAIL_TOLERANCE_V;
};

/** What a board runs on follows from where it browns out: 5 V below 6, else 12 V. */
const railOf = (board: PartOf<'board'>): number => (board.brownOutV < 6 ? 5.1 : 12);

/** What a supply itself is fed by: another way asks for more than another supply. */
const feedOf = ({ sockets }: PartOf<'supply'>): string | undefined =>
	sockets.find(({ way }) => way === 'in')?.plug.replace(/^mains-.*/, 'mains');

/** Supplies that would do: fed as this one is, strong enough with a fifth in hand, their plug the board's first. */
function stronger(path: PowerPath, board: PartOf<'board'>, context: Context): PartOf<'supply'>[] {
	const plugs = board.sockets.filter(({ way, carries }) => way === 'in' && carries.includes('power'));
	const meetsBoard = (part: PartOf<'supply'>): boolean =>
		part.sockets.some((out) => out.way === 'out' && out.male && plugs.some(({ plug }) => plug === out.plug));
	return context.drawer
		.flatMap((part) =>
			part.kind === 'supply' &&
			part.id !== path.supply.id &&
			feedOf(part) === feedOf(path.supply) &&
			fits(part, board, path.supply) &&
			part.volts * part.amperes * COMFORT >= path.watts.peak
				? [part]
				: []
		)
		.sort((a, b) => Number(meetsBoard(b)) - Number(meetsBoard(a)) || a.amperes - b.amperes);
}

const useSupply = (part: PartOf<'supply'> | undefined, context: Context): Fix[] =>
	part ? [{ label: `Use ${part.name}`, apply: context.change.choosePart('supply', part.id) }] : [];

function assessRail(path: PowerPath, board: PartOf<'board'>, context: Context): Finding[] {
	const rail = railOf(board);
	if (Math.abs(path.supply.volts - rail) <= RAIL_TOLERANCE_V * 2) return [];
	return [
		{
			id: 'power.wrong-rail',
			level: 'stop',
			title: `${board.name} runs on ${rail < 6 ? '5' : '12'}\u2009V, not ${path.supply.volts}`,
			why:
				path.supply.volts > rail
					? 'Too many volts end a board in an instant. Never join these two.'
					: 'It does not start at all.',
			setting: 'parts.supply',
			fixes: useSupply(stronger(path, board, context)[0], context)
		}
	];
}

function assessSupply(path: PowerPath, board: PartOf<'board'>, context: Context): Finding[] {
	const { peak } = path.watts;
	if (peak <= COMFORT * path.ratedW) return [];
	const who = path.who
		.filter(({ peakW }) => peakW >= 0.05)
		.map(({ what, peakW }) => `${what} ${withUnit(peakW, 1, 'W')}`)
		.join(', ');
	const fixes = useSupply(stronger(path, board, context)[0], context);
	if (peak > path.ratedW)
		return [
			{
				id: 'power.too-weak',
				level: 'stop',
				title: `The supply is ${withUnit(peak - path.ratedW, 1, 'W')} too weak`,
				why: `At their busiest the parts draw ${withUnit(peak, 1, 'W')} (${who}); ${path.supply.name} gives ${withUnit(path.ratedW, 1, 'W')}. The board would restart when it is busy.`,
				setting: 'parts.supply',
				fixes
			}
		];
	if (peak > COMFORT * path.ratedW)
		return [
			{
				id: 'power.only-just',
				level: 'caution',
				title: 'The supply is only just enough',
				why: `At their busiest the parts draw ${withUnit(peak, 1, 'W')} (${who}) of ${withUnit(path.ratedW, 1, 'W')}. Keep a fifth in hand.`,
				setting: 'parts.supply',
				fixes
			}
		];
	return [];
}

function assessLead(settings: PowerSettings, path: PowerPath, board: PartOf<'board'>, context: Context): Finding[] {
	const peakV = path.at.peak?.boardV ?? null;
	const fixes = (): Fix[] =>
		path.supply.lead
			? useSupply(
					stronger(path, board, context).find((part) => part.id !== path.supply.id),
					context
				)
			: (path.lead ? betterLeads(settings, path, board, context) : []).slice(0, 2).map((lead) => ({
					label: `Use ${lead.name}`,
					apply: context.change.choosePart('lead', lead.id)
				}));
	if (peakV === null || peakV < board.brownOutV)
		return [
			{
				id: 'power.lead-sags',
				level: 'stop',
				title: peakV === null ? 'The cable cannot carry the load' : `Only ${withUnit(peakV, 2, 'V')} reach the board`,
				why: `It restarts below ${withUnit(board.brownOutV, 2, 'V')}. ${path.lead?.name ?? 'The cable'} loses the rest: a shorter or thicker one is needed.`,
				setting: path.supply.lead ? 'parts.supply' : 'parts.lead',
				fixes: fixes()
			}
		];
	const goodV = goodFromV(board);
	if (peakV < goodV)
		return [
			{
				id: 'power.warns',
				level: 'caution',
				title: `Only ${withUnit(peakV, 2, 'V')} reach the board: it warns and slows itself`,
				why: `Below ${withUnit(goodV, 2, 'V')} it reports too little voltage and lowers its speed; below about ${withUnit(board.brownOutV, 2, 'V')} it restarts. A shorter or thicker cable, or a supply of 5.1\u2009V, ends that.`,
				setting: path.supply.lead ? 'parts.supply' : 'parts.lead',
				fixes: fixes()
			}
		];
	if (peakV - goodV < THIN_MARGIN_V)
		return [
			{
				id: 'power.thin-margin',
				level: 'caution',
				title: `Only ${withUnit((peakV - goodV) * 1000, 0, 'mV')} above ${board.warnsV === null ? 'the brown-out' : 'the board\u2019s warning'}`,
				why: `${withUnit(peakV, 2, 'V')} reach the board at its busiest; below ${withUnit(goodV, 2, 'V')} it ${board.warnsV === null ? 'restarts' : 'reports too little voltage and slows itself'}. A worn plug takes as much.`,
				setting: path.supply.lead ? 'parts.supply' : 'parts.lead',
				fixes: fixes()
			}
		];
	const startV = path.at.start?.boardV ?? null;
	if (startV === null || startV < board.brownOutV)
		return [
			{
				id: 'power.start',
				level: 'caution',
				title: 'The board\u2019s own start pulls it down',
				why: `When power comes it takes ${withUnit(path.watts.start, 1, 'W')} for a moment, and ${startV === null ? 'the voltage collapses' : `only ${withUnit(startV, 2, 'V')} reach it`}: it may try several times. A shorter or thicker cable ends that.`,
				setting: path.supply.lead ? 'parts.supply' : 'parts.lead',
				fixes: fixes()
			}
		];
	const surgeV = path.at.surge?.boardV ?? null;
	if (surgeV === null || surgeV < board.brownOutV)
		return [
			{
				id: 'power.surge',
				level: 'caution',
				title: 'The inrush of a part pulls the board down',
				why: `When it is plugged in or spins up while the board plays, ${surgeV === null ? 'the voltage collapses' : `${withUnit(surgeV, 2, 'V')} are left`}: the board restarts. Plug it in before power comes, or feed it from a hub with its own supply.`,
				setting: 'parts.also',
				fixes: addHub(context)
			}
		];
	return [];
}

/** Leads with the same two ends that keep the board well above its brown-out, the thickest loss first removed. */
function betterLeads(
	settings: PowerSettings,
	path: PowerPath,
	board: PartOf<'board'>,
	context: Context
): PartOf<'lead'>[] {
	const outs = path.supply.sockets.filter(({ way, male }) => way === 'out' && !male);
	const ins = board.sockets.filter(({ way, carries }) => way === 'in' && carries.includes('power'));
	const voltsAt = (lead: PartOf<'lead'>, watts: number): number =>
		dropAtPower(path.supply.volts, loopOhm(lead.lengthM, lead.areaMm2!, settings.contactMilliohm / 1000), watts)
			?.boardV ?? 0;
	const volts = (lead: PartOf<'lead'>): number => voltsAt(lead, path.watts.peak);
	const starts = (lead: PartOf<'lead'>): boolean => voltsAt(lead, path.watts.start) >= board.brownOutV;
	return context.drawer
		.flatMap((part) => (part.kind === 'lead' && part.areaMm2 && part.carries.includes('power') ? [part] : []))
		.filter(({ ends: [a, b] }) =>
			[
				[a, b],
				[b, a]
			].some(
				([from, to]) =>
					from!.male &&
					to!.male &&
					outs.some(({ plug }) => plug === from!.plug) &&
					ins.some(({ plug }) => plug === to!.plug)
			)
		)
		.filter(
			(lead) => lead.id !== context.facts.parts.lead && starts(lead) && volts(lead) >= goodFromV(board) + THIN_MARGIN_V
		)
		.sort((a, b) => volts(b) - volts(a));
}

const addHub = (context: Context): Fix[] =>
	context.drawer
		.flatMap((part) => (part.kind === 'hub' && part.powered ? [part] : []))
		.slice(0, 1)
		.map((hub) => ({ label: `Add ${hub.name}`, apply: context.change.addPart(hub.id) }));

function assessUsb(path: PowerPath, board: PartOf<'board'>, context: Context): Finding[] {
	const { usb } = path;
	const list = path.usbPlaces
		.filter(({ at }) => at !== 'powered hub')
		.map(({ what, amperes }) => `${what} ${withUnit(amperes, 2, 'A')}`)
		.join(', ');
	if (usb.totalA > board.usbTotalA)
		return [
			{
				id: 'power.usb-total',
				level: 'stop',
				title: `USB is asked for ${withUnit(usb.totalA, 2, 'A')}`,
				why: `${list}; ${board.name} gives ${withUnit(board.usbTotalA, 1, 'A')} to all its sockets together, then switches them off. A hub with its own supply takes the load away.`,
				setting: 'parts.also',
				fixes: addHub(context)
			}
		];
	if (usb.busiestA > board.usbPortA)
		return [
			{
				id: 'power.usb-port',
				level: 'stop',
				title: `One USB socket is asked for ${withUnit(usb.busiestA, 2, 'A')}`,
				why: `${list}; one socket gives ${withUnit(board.usbPortA, 1, 'A')}. A plain hub does not add any.`,
				setting: 'parts.also',
				fixes: addHub(context)
			}
		];
	return [];
}

function assessHoldUp(settings: PowerSettings, path: PowerPath, context: Context): Finding[] {
	const store = holdUpOf(context);
	if (!store) return [];
	const seconds = computeHoldUpSec(store, path.watts.typical);
	if (seconds !== null && seconds >= settings.shutdownSec) return [];
	return [
		{
			id: 'power.hold-too-short',
			level: 'caution',
			title:
				seconds === null
					? `${store.name} cannot carry ${withUnit(path.watts.typical, 1, 'W')}`
					: `The charge lasts ${formatSeconds(seconds * 1000)}, a shutdown takes ${settings.shutdownSec}\u2009s`,
			why:
				seconds === null
					? `It gives ${withUnit(store.maxW, 0, 'W')} at most. It is no help in a power cut.`
					: 'The board would lose power half way through its shutdown, which is worse than a plain cut.',
			setting: 'power.shutdownSec',
			fixes: context.drawer
				.flatMap((part) =>
					part.kind === 'hold-up' && (computeHoldUpSec(part, path.watts.typical) ?? 0) >= settings.shutdownSec * 1.5
						? [part]
						: []
				)
				.sort((a, b) => (a.price ?? 0) - (b.price ?? 0))
				.slice(0, 1)
				.map((part) => ({
					label: `Use ${part.name}`,
					apply: context.change.replacePart(store.id, part.id)
				}))
		}
	];
}

function assessAlarm(path: PowerPath, board: PartOf<'board'>, context: Context): Finding[] {
	if (!context.probe?.supplyAlarm) return [];
	return [
		{
			id: 'power.alarm-seen',
			level: 'caution',
			title: 'The board itself has reported too little voltage',
			why: 'The probe report carries a supply alarm. Whatever the figures say, try a stronger supply or a shorter cable, then probe again.',
			setting: 'parts.supply',
			fixes: useSupply(stronger(path, board, context)[0], context)
		}
	];
}

export default assessPower satisfies Judge<PowerSettings>;
