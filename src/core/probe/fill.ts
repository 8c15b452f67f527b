import { contains, formatAddress, isPrivate, readAddress, readCidr, hostRange, type Network } from '../formats/ip/cidr';
import { isOfAnother, nameCard } from './nameCard';
import { mayHaveMemory } from '../parts/measured';
import type { Part, PartOf } from '../parts/schema';
import type { Plan } from '../plan/plan';
import type { Venue } from '../plan/venue';
import type { ProbeFacts, SoundDevice } from '../parts/probeFacts';

/** One thing that a report says and the plan does not have yet. */
export interface Filling {
	/** In words: "Board: Full-size board, 4 GB". */
	readonly what: string;
	apply(plan: Plan): Plan;
}

/** What of a report can be put into the plan: board, memory card, converter, its name and control. */
export function fillingsOf(plan: Plan, facts: ProbeFacts, drawer: readonly Part[]): Filling[] {
	const device = soundOf(facts);
	return [
		...fillBoard(plan, facts, drawer),
		...fillCard(plan, facts, drawer),
		...(device ? [...fillOutput(plan, device, drawer), ...fillControl(plan, device)] : [])
	];
}

const ofKind = <K extends Part['kind']>(drawer: readonly Part[], kind: K): PartOf<K>[] =>
	drawer.filter((part): part is PartOf<K> => part.kind === kind);
const choose = (what: string, place: 'board' | 'card' | 'converter', part: Part): Filling => ({
	what: `${what}: ${part.name}`,
	apply: (plan) => ({ ...plan, parts: { ...plan.parts, [place]: part.id } })
});

/** The one that stands in the plan where it fits; else the first of that memory, with a socket where one was seen. */
function fillBoard(plan: Plan, { memoryMb, addresses, linkMbps }: ProbeFacts, drawer: readonly Part[]): Filling[] {
	if (memoryMb === null) return [];
	const isWired = [...addresses, ...linkMbps].some(({ name }) => /^e(?:th|n)/.test(name));
	const fits = ofKind(drawer, 'board').filter((board) => mayHaveMemory(board, memoryMb) && (board.wired || !isWired));
	if (fits.some(({ id }) => id === plan.parts.board)) return [];
	return fits[0] ? [choose('Board', 'board', fits[0])] : [];
}

/** Makers count in thousands and keep a little for themselves: the next size above what the kernel sees. */
function fillCard(plan: Plan, { disks }: ProbeFacts, drawer: readonly Part[]): Filling[] {
	const found = disks.find(({ name }) => /^mmcblk\d+$/.test(name));
	if (!found) return [];
	const isOfSize = ({ capacityGb }: PartOf<'card'>): boolean =>
		capacityGb * 1e9 >= found.sizeBytes && capacityGb * 0.85e9 <= found.sizeBytes;
	const fits = ofKind(drawer, 'card').filter(isOfSize);
	if (fits.some(({ id }) => id === plan.parts.card)) return [];
	return fits[0] ? [choose('Memory card', 'card', fits[0])] : [];
}

const BOARD_OWN = /headphones/i;
const DISPLAY = /hdmi|displayport/i;
/** What a person added comes before what the board has of itself. */
const soundOf = ({ soundDevices }: ProbeFacts): SoundDevice | null =>
	soundDevices.find(({ usbSpeed }) => usbSpeed !== null) ??
	soundDevices.find(({ cardName, deviceName }) => !BOARD_OWN.test(cardName) && !DISPLAY.test(cardName + deviceName)) ??
	soundDevices[0] ??
	null;

function fillConverter(plan: Plan, device: SoundDevice, drawer: readonly Part[]): Filling[] {
	const joint =
		device.usbSpeed !== null
			? 'usb'
			: BOARD_OWN.test(device.cardName)
				? 'jack'
				: DISPLAY.test(device.cardName + device.deviceName)
					? 'display'
					: 'header';
	const top = Math.max(0, ...(device.playback?.ratesHz ?? []));
	const far = ({ playback }: PartOf<'converter'>): number =>
		top === 0 ? 0 : Math.abs(Math.log2(Math.max(...playback.ratesHz) / top));
	const fits = ofKind(drawer, 'converter')
		.filter((part) => part.joint === joint)
		.sort((a, b) => far(a) - far(b));
	const [best] = fits;
	const now = fits.find(({ id }) => id === plan.parts.converter);
	return !best || (now && far(now) === far(best)) ? [] : [choose('Output', 'converter', best)];
}

/** The converter by its class, and the name that its kernel gives it. */
function fillOutput(plan: Plan, device: SoundDevice, drawer: readonly Part[]): Filling[] {
	const { cardId, deviceNumber } = device;
	const output = fillConverter(plan, device, drawer);
	const { sound, parts } = output.reduce((changed, { apply }) => apply(changed), plan);
	const isKnown =
		sound.cardId === cardId && sound.deviceNumber === deviceNumber && !isOfAnother(sound, parts.converter ?? null);
	return isKnown
		? output
		: [...output, { what: `Card name: ${cardId}, device ${deviceNumber}`, apply: nameCard({ cardId, deviceNumber }) }];
}

function fillControl({ sound }: Plan, { mixers }: SoundDevice): Filling[] {
	const [first] = mixers;
	if (!first || sound.volumeAt !== 'converter' || mixers.some(({ name }) => name === sound.mixerName)) return [];
	return [
		{
			what: `The converter\u2019s control: ${first.name}`,
			apply: (plan) => ({ ...plan, sound: { ...plan.sound, mixerName: first.name } })
		}
	];
}

/** The first private range of the report's own addresses; null: none. */
export function rangeOf({ addresses }: ProbeFacts): Network | null {
	for (const { address, prefixLength } of addresses) {
		const read = prefixLength === null ? null : readCidr(`${address}/${prefixLength}`);
		if (read?.ok && read.value.version === 4 && isPrivate(read.value)) return read.value;
	}
	return null;
}

/** The venue's network as the report has it, where the venue has none or another. The router is taken to be the first address. */
export function fillLan({ lan }: Venue, facts: ProbeFacts): Venue['lan'] {
	const found = rangeOf(facts);
	if (!found) return null;
	const known = lan ? readCidr(lan.cidr) : null;
	if (known?.ok && contains(known.value, found)) return null;
	return {
		cidr: `${formatAddress(found)}/${found.prefixLength}`,
		gateway: formatAddress(hostRange(found).first),
		poolFrom: '',
		poolTo: ''
	};
}

/** Addresses of the report that lie in none of these ranges. */
export const outsideOf = (facts: ProbeFacts, ranges: readonly string[]): string[] =>
	facts.addresses.flatMap(({ address, up }) => {
		const read = readAddress(address);
		if (!up || !read.ok || read.value.version !== 4) return [];
		const isIn = ranges.some((range) => {
			const network = readCidr(range);
			return network.ok && contains(network.value, read.value);
		});
		return isIn ? [] : [address];
	});
