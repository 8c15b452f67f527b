/**
 * The card: which image, written and checked how, room and wear, and what becomes of it when power is cut.
 * apply.sh, verify.sh and the manifest are made here, because they name every file of the set. Start at `contents.ts` and `wear.ts`.
 */
import { changing } from '../../changes';
import type { Claim } from '../../claims';
import { formatBytes, withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { isSaved } from '../../plan/saved';
import { computeRoom } from './contents';
import { computeLayer } from './layer';
import { CARD_FAULTS } from './faults';
import { cardTrack } from './track';
import { RELEASE } from './release';
import { calmCard, cardSettings, type CardSettings } from './settings';
import { startFileOf } from './startFile';
import { writeTime } from './writeTime';
import { AMPLIFICATION, computeWear } from './wear';
import './offers';

const MANY_DAYS = 366;
/** The first asks at the start for tools that the second brings, and does not say so: without them the root stays writable. */
const OVERLAY_PACKAGES = ['overlayroot', 'busybox'];

function figures(settings: CardSettings, context: Context, claims: readonly Claim[]): Figure[] {
	const room = computeRoom(settings, context, claims);
	if (!room)
		return [
			{
				id: 'free',
				setting: 'parts.card',
				label: 'Free',
				text: 'no card',
				value: null,
				sure: 'assumed',
				from: 'Choose a card.',
				telling: true
			}
		];
	const takes = writeTime(settings, context);
	return [
		{
			id: 'free',
			setting: 'parts.card',
			label: 'Left free',
			text: room.freeBytes < 0 ? 'too small' : `${formatBytes(room.freeBytes)} free`,
			value: room.freeBytes,
			sure: 'typical',
			from: `Capacity less ${settings.reservePercent}\u2009% reserve, system, packages, swap, logs and media.`,
			telling: true
		},
		{
			id: 'capacity',
			setting: 'parts.card',
			label: 'Capacity',
			text: `${room.card.capacityGb}\u2009GB`,
			value: room.card.capacityGb,
			sure: 'exact',
			from: 'Printed on the card; decimal gigabytes.'
		},
		{
			id: 'media',
			setting: 'sources.items',
			label: 'Media on the card',
			text: formatBytes(room.neededBytes),
			value: room.neededBytes,
			sure: 'exact',
			from: 'Sum of the files that go on the card.'
		},
		...wearFigures(settings, room.card, claims),
		...layerFigure(settings, context, claims),
		...(takes
			? [
					{
						id: 'write-time',
						setting: 'card.image' as const,
						label: 'Writing the image takes',
						text: takes,
						value: null,
						sure: 'typical' as const,
						from: 'Its size by the speed that the card\u2019s class promises. Enter the time it took: it tells what the card is worth.'
					}
				]
			: [])
	];
}

/** What is written, and how long the card stands it. */
function wearFigures(
	settings: CardSettings,
	card: Parameters<typeof computeWear>[1],
	claims: readonly Claim[]
): Figure[] {
	const wear = computeWear(settings, card, claims);
	return [
		{
			id: 'wear',
			setting: 'card.logsInMemory',
			label: 'Written each day',
			text: `${withUnit(wear.givenMb, 0, 'MB')} · ${withUnit(wear.writtenMb, 0, 'MB')} in its cells`,
			value: wear.writtenMb,
			sure: 'typical',
			from:
				settings.root === 'overlay'
					? 'A read-only root is written to by nobody.'
					: `Little writes cost ${AMPLIFICATION.small} times their size, long ones ${AMPLIFICATION.large}.`
		},
		{
			id: 'years',
			setting: 'parts.card',
			label: 'Worn out after',
			text: wear.years > 50 ? 'more than 50 years' : withUnit(wear.years, 1, 'years'),
			value: Number.isFinite(wear.years) ? wear.years : null,
			sure: wear.stated ? 'exact' : 'typical',
			from: `It stands ${withUnit(wear.enduranceTb, 0, 'TB')}${wear.stated ? ', as its maker states' : ', as is typical of its size'}.`
		}
	];
}

function layerFigure(settings: CardSettings, context: Context, claims: readonly Claim[]): Figure[] {
	const board = context.part('board', context.facts.parts.board);
	if (settings.root === 'writable' || !board) return [];
	const { roomMb, dailyMb, daysUntilFull } = computeLayer(settings, board, claims);
	return [
		{
			id: 'layer',
			setting: 'card.root',
			label: 'Layer in memory full after',
			text: daysUntilFull > MANY_DAYS ? 'more than a year' : withUnit(daysUntilFull, 0, 'days'),
			value: Number.isFinite(daysUntilFull) ? daysUntilFull : null,
			sure: 'typical',
			from: `Half of the memory is ${withUnit(roomMb, 0, 'MB')}, ${withUnit(dailyMb, 0, 'MB')} come each day; a restart empties it.`
		}
	];
}

/** What the kernel is told besides what the image tells it. Source: systemd-fsck@.service(8); panic= in the kernel's parameters. */
const kernelClaims = (settings: CardSettings): Claim[] =>
	[
		{
			argument: settings.mendAtStart ? 'fsck.repair=yes' : 'fsck.mode=skip',
			setting: 'card.mendAtStart' as const
		},
		...(settings.watchdog ? [{ argument: 'panic=10', setting: 'card.watchdog' as const }] : [])
	].map((wanted) => ({ on: 'kernel', from: 'card', what: 'start', ...wanted }));

const cardClaims = (settings: CardSettings): Claim[] => [
	...kernelClaims(settings),
	{
		on: 'check',
		from: 'card',
		what: 'release',
		label: `the system is ${RELEASE.words}`,
		command: `grep -qxF 'VERSION_ID="${RELEASE.versionId}"' /etc/os-release`,
		setting: 'card.system'
	},
	...(settings.root === 'overlay'
		? [
				...OVERLAY_PACKAGES.map((name): Claim => ({
					on: 'package',
					from: 'card',
					what: 'read-only root',
					name,
					setting: 'card.root'
				})),
				{
					on: 'check' as const,
					from: 'card',
					what: 'read-only root',
					label: 'the root is read-only, below a layer in memory',
					command: 'test "$(findmnt -n -o FSTYPE /)" = overlay',
					setting: 'card.root' as const
				}
			]
		: [])
];

/** The link that owns the card: its room, its wear, the files that are on it. */
export const card: Link<'card', CardSettings> = {
	id: 'card',
	title: 'Card',
	settings: cardSettings,
	version: 3,
	migrations: {
		1: (saved) => ({
			firstPartition: '/boot/firmware',
			...saved,
			image: isSaved(saved.image) ? { firstFreeBytes: null, ...saved.image } : saved.image
		}),
		2: (saved) => ({ secretsLeave: false, ...saved })
	},
	empty: () => calmCard,
	key: 'c',
	place: { column: 'world', row: 3, wires: [{ to: 'programme', carries: 'data' }] },
	publish: (settings) => {
		const { root, system, firstPartition } = settings;
		return { root, system, firstPartition, startsBy: startFileOf(settings) };
	},
	changes: { makeRootWritable: () => changing<CardSettings>('card')({ root: 'writable' }) },
	faults: CARD_FAULTS,
	tracks: [cardTrack],
	claims: cardClaims,
	figures
};
