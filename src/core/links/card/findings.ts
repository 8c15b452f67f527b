import { formatBps, formatBytes, withUnit } from '../../basics/format';
import { claimsOn, type Claim } from '../../claims';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { computeRoom, type Room } from './contents';
import { computeLayer } from './layer';
import { computeWear, judgeCard } from './wear';
import type { CardSettings } from './settings';

const own = changing<CardSettings>('card');

/** A card should outlast the interest in the endpoint. */
const ENOUGH_YEARS = 5;
/** Nobody comes by more often than every month to restart it. */
const ENOUGH_DAYS = 31;

const patch = (label: string, change: Partial<CardSettings>): Fix => ({
	label,
	apply: own(change)
});

/** Room, speed, wear, what a power cut does, and the image's own findings. */
export function assessCard(settings: CardSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const room = computeRoom(settings, context, claims);
	return [
		...(room
			? [
					...assessRoom(room, settings, context),
					...assessWear(room, settings, context, claims),
					...assessWritten(room, settings)
				]
			: [
					{
						id: 'card.unknown',
						level: 'note' as const,
						title: 'Nothing can be said of the room yet',
						why: 'Choose a card; then what fits on it stands here.',
						setting: 'parts.card' as const,
						fixes: []
					}
				]),
		...assessImage(settings, room, context),
		...assessSet(settings, context, claims),
		...assessEnd(settings),
		...assessLayer(settings, context, claims),
		...assessFetching(settings, context, claims),
		...assessBootText(settings)
	];
}

const useCard = (room: Room, context: Context, suits: (capacityGb: number) => boolean, hard = false): Fix[] =>
	context.drawer
		.flatMap((part) =>
			part.kind === 'card' && part.id !== room.card.id && suits(part.capacityGb) && (!hard || part.enduranceTb !== null)
				? [part]
				: []
		)
		.sort((a, b) => a.capacityGb - b.capacityGb)
		.slice(0, 1)
		.map((part) => ({
			label: `Use ${part.name}`,
			apply: context.change.choosePart('card', part.id)
		}));

function assessRoom(room: Room, settings: CardSettings, context: Context): Finding[] {
	if (room.freeBytes >= 0) return [];
	const shortGb = -room.freeBytes / 1e9;
	const enough = (capacityGb: number): boolean =>
		(capacityGb - room.card.capacityGb) * (1 - settings.reservePercent / 100) >= shortGb;
	return [
		{
			id: 'card.too-small',
			level: 'stop',
			title: `The card is ${formatBytes(-room.freeBytes)} too small`,
			why: `${formatBytes(room.neededBytes)} of media and ${room.pieces
				.filter(({ kind }) => kind === 'system')
				.map(({ name, bytes }) => `${formatBytes(bytes)} of ${name}`)
				.join(', ')} do not fit on ${room.card.name} with ${settings.reservePercent}\u2009% kept free.`,
			setting: 'parts.card',
			fixes: useCard(room, context, enough)
		}
	];
}

function assessWear(room: Room, settings: CardSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const wear = computeWear(settings, room.card, claims);
	if (wear.years >= ENOUGH_YEARS) return [];
	return [
		{
			id: 'card.worn-soon',
			level: wear.years < 1 ? 'stop' : 'caution',
			title: `Worn out after ${withUnit(wear.years, 1, 'years')}`,
			why: `${withUnit(wear.givenMb, 0, 'MB')} a day become ${withUnit(wear.writtenMb, 0, 'MB')} in its cells; it stands ${withUnit(wear.enduranceTb, 0, 'TB')}${wear.stated ? '' : ', as is typical'}. Keep recordings on a stick or a share, logs in memory, or choose a card made for it.`,
			setting: 'card.dailyMb',
			fixes: [
				...(settings.logsInMemory ? [] : [patch('Keep the log in memory', { logsInMemory: true })]),
				...useCard(room, context, (gb) => gb >= room.card.capacityGb, true)
			]
		}
	];
}

/** The time that writing took tells what the card is worth. */
function assessWritten(room: Room, settings: CardSettings): Finding[] {
	const { wroteInMin, image } = settings;
	if (wroteInMin === null || !image?.rawBytes) return [];
	const { mbps, verdict } = judgeCard(image.rawBytes, wroteInMin, room.card);
	if (verdict === 'as-promised') return [];
	const rate = `${withUnit(mbps, 1, 'MB/s')} (${formatBps(mbps * 8e6)})`;
	return [
		verdict === 'slow'
			? {
					id: 'card.slow',
					level: 'caution',
					title: `Written with ${withUnit(mbps, 1, 'MB/s')}, its class promises ${withUnit(room.card.writeMBps, 0, 'MB/s')}`,
					why: `${rate} is too little: a poor reader, a worn card, or one that was never of its class. Try another socket; if it stays so, use another card.`,
					setting: 'card.wroteInMin',
					fixes: []
				}
			: {
					id: 'card.too-fast',
					level: 'stop',
					title: `Nothing writes with ${withUnit(mbps, 0, 'MB/s')}`,
					why: `${rate} means that it was not written at all, or that the card claims more room than it has and throws the rest away. Filling it whole and reading it back proves it: \u201cIs the card as large as it says?\u201d on the page Write the memory card. Do not use it before that.`,
					setting: 'card.wroteInMin',
					fixes: []
				}
	];
}

function assessImage(settings: CardSettings, room: Room | null, context: Context): Finding[] {
	const { image, system } = settings;
	if (!image) return [];
	const findings: Finding[] = [];
	if (image.rawBytes && room && image.rawBytes > room.card.capacityGb * 1e9)
		findings.push({
			id: 'card.image-too-large',
			level: 'stop',
			title: `${image.name} is larger than the card`,
			why: `It takes ${formatBytes(image.rawBytes)}; ${room.card.name} has ${formatBytes(room.card.capacityGb * 1e9)}.`,
			setting: 'parts.card',
			fixes: useCard(room, context, (gb) => gb * 1e9 >= image.rawBytes!)
		});
	if (image.checked === 'no')
		findings.push({
			id: 'card.unchecked',
			level: 'caution',
			title: 'The image is not compared with its publisher\u2019s digest',
			why: 'A torn download starts almost as often as a whole one, and fails later. Paste the digest from the page where you fetched it.',
			setting: 'card.image',
			fixes: []
		});
	if (system === 'plain' && image.takesSeed === false)
		findings.push({
			id: 'card.no-seed',
			level: 'caution',
			title: 'This image seems not to read a seed',
			why: 'No place for one was seen on it. Its first start asks questions, or brings a user of its own: log in as that one, by a borrowed screen, and run apply.sh once. It makes the planned user, name and time zone, too.',
			setting: 'card.image',
			fixes: [
				{
					label: 'With a borrowed screen',
					apply: context.change.setUpBy('screen')
				}
			]
		});
	return findings;
}

/** Scripts, units and lists of a set, without media. Measured on the demo's sets: 60 to 90 kB. */
const SET_BYTES = 200_000;
/** Where nobody has seen the first partition, a set up to this size goes onto any. Typical. */
const SMALL_SET_BYTES = 60e6;

/** The set is copied onto the first partition, which is small. */
function assessSet({ image, system }: CardSettings, { change }: Context, claims: readonly Claim[]): Finding[] {
	const carried = claimsOn(claims, 'store').reduce((sum, { bytes, inSet }) => sum + (inSet ? bytes : 0), 0);
	const bytes = carried + SET_BYTES;
	const free = image?.firstFreeBytes ?? null;
	if (system !== 'plain' || bytes <= (free ?? SMALL_SET_BYTES)) return [];
	const fixes: Fix[] = [{ label: 'Copy the files to the endpoint yourself', apply: change.carryMedia('self') }];
	return [
		free === null
			? {
					id: 'card.set-large',
					level: 'caution',
					title: `The card set is ${formatBytes(bytes)}, and nobody knows whether the first partition holds it`,
					why: 'The set is copied onto the first partition, which is small on most images. Drop the image on the page Write the memory card: its free room is read there.',
					setting: 'card.image',
					fixes
				}
			: {
					id: 'card.set-too-large',
					level: 'stop',
					title: `The card set is ${formatBytes(bytes - free)} larger than the room on the first partition`,
					why: `It is ${formatBytes(bytes)}; ${image!.name} leaves ${formatBytes(free)} free there. Copy the files of the list over the network instead, or use an image with a larger first partition.`,
					setting: 'card.image',
					fixes
				}
	];
}

/** How it ends, against how it is kept. Both schools are right, each with its own care. */
function assessEnd(settings: CardSettings): Finding[] {
	const { root, ends, mendAtStart, logsInMemory } = settings;
	if (root === 'overlay' || ends === 'shutdown') return [];
	return [
		...(mendAtStart
			? []
			: [
					{
						id: 'card.cut-unmended',
						level: 'caution' as const,
						title: 'Power is cut, and nothing mends the card at the start',
						why: 'A cut within a write leaves it waiting for somebody with a keyboard.',
						setting: 'card.mendAtStart' as const,
						fixes: [patch('Mend at the start', { mendAtStart: true }), patch('Shut down first', { ends: 'shutdown' })]
					}
				]),
		...(logsInMemory
			? []
			: [
					{
						id: 'card.cut-logs',
						level: 'note' as const,
						title: 'Power is cut while the log is written',
						why: 'The log is what is being written most of the time, so it is what a cut tears. In memory it is never torn, and gone after each restart.',
						setting: 'card.logsInMemory' as const,
						fixes: [patch('Keep the log in memory', { logsInMemory: true })]
					}
				])
	];
}

/** What is written to a read-only root stays in memory until the next restart, and memory ends. */
function assessLayer(settings: CardSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const board = context.part('board', context.facts.parts.board);
	if (settings.root === 'writable' || !board) return [];
	const { roomMb, dailyMb, daysUntilFull } = computeLayer(settings, board, claims);
	if (daysUntilFull >= ENOUGH_DAYS) return [];
	return [
		{
			id: 'card.layer-fills',
			level: daysUntilFull < 1 ? 'stop' : 'caution',
			title: `The layer in memory is full after ${daysUntilFull < 1 ? withUnit(daysUntilFull * 24, 1, 'hours') : withUnit(daysUntilFull, 0, 'days')}`,
			why: `${withUnit(dailyMb, 0, 'MB')} are written each day, and half of the memory, ${withUnit(roomMb, 0, 'MB')}, holds them. Once it is full nothing can be written, and programs stop. Restart it more often than that, write less, or let the root be written to.`,
			setting: 'card.dailyMb',
			fixes: [
				...(settings.logsInMemory ? [] : [patch('Keep the log small, in memory', { logsInMemory: true })]),
				patch('Make the root writable', { root: 'writable' })
			]
		}
	];
}

/** Packages come over the network, once; what plays from the card alone needs it for its first start only. */
function assessFetching(card: CardSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const names = [...new Set(claimsOn(claims, 'package').map(({ name }) => name))];
	if (card.system !== 'plain' || context.facts.way !== 'none' || names.length === 0) return [];
	return [
		{
			id: 'card.fetch-once',
			level: 'note',
			title: `${names.length === 1 ? 'A package is' : `${names.length} packages are`} fetched at the first start: join a cable for that once`,
			why: `${names.join(', ')} ${names.length === 1 ? 'comes' : 'come'} over the network, unless the image brings ${names.length === 1 ? 'it' : 'them'}. Afterwards none is needed.`,
			setting: 'network.way',
			fixes: [{ label: 'Use Ethernet always', apply: context.change.useWired() }]
		}
	];
}

/** Arguments of the kernel have a place of their own, which only the image knows. */
function assessBootText(card: CardSettings): Finding[] {
	if (card.bootStyle === 'none' || card.bootText.trim() !== '') return [];
	return [
		{
			id: 'card.boot-text',
			level: 'note',
			title: 'What stands in the image\u2019s own start file?',
			why: `Paste ${card.bootStyle === 'cmdline' ? 'the line out of cmdline.txt' : 'extlinux.conf'} from the card\u2019s first partition: the card set brings it back with what it adds.`,
			setting: 'card.bootText',
			fixes: [patch('Leave it as it is', { bootStyle: 'none' })]
		}
	];
}

export default assessCard satisfies Judge<CardSettings>;
