import { changing, type Change } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import type { Judge } from '../../manifest';
import { partText } from '../../files/entryPart';
import { placeKind } from '../../files/mediaPlace';
import { assessBuffer } from './streams/assessBuffer';
import { assessLoudness } from './lists/assessLoudness';
import { assessParts } from './lists/assessParts';
import { assessRules } from './lists/assessRules';
import { assessStores, isElsewhere } from './stores/assessStores';
import { conversionsOf } from './lists/convert';
import { receivedAt } from './streams/receive';
import { filesOf, isInSet } from './stores/onCard';
import { ruleOf } from './lists/rules';
import type { SourcesSettings, SourceItem } from './settings';
import { isShare, storeOf } from './stores/stores';

const own = changing<SourcesSettings>('sources');

/** Lists without entries, names that cannot be, streams that end a list. */
export function assessSources(settings: SourcesSettings, context: Context): Finding[] {
	const { items } = settings;
	return [
		...isEmpty(items, context),
		...areDoubled(items),
		...areUnknown(settings, context),
		...unseen(items, context),
		...tooHard(items, context),
		...neverReached(settings, context),
		...areElsewhere(settings),
		...assessBuffer(settings, context),
		...assessStores(settings, context),
		...assessRules(settings, context),
		...assessLoudness(settings, context),
		...assessParts(settings, context),
		...areNotHere(settings, context),
		...waitForNothing(settings),
		...playedByNobody(context)
	];
}

const named = (items: readonly SourceItem[]): string =>
	items
		.slice(0, 3)
		.map((item) => item.title || item.location)
		.join(', ');
const withItems = (change: (items: readonly SourceItem[]) => SourceItem[]): Change =>
	own((settings) => ({ ...settings, items: change(settings.items) }));
const isStreamed = ({ location }: SourceItem): boolean => placeKind(location) === 'stream';

/** Where pages are shown, a list of files is something more, not the whole. */
const isEmpty = (items: readonly SourceItem[], { facts }: Context): Finding[] =>
	items.length || facts.pages?.length
		? []
		: [
				{
					id: 'sources.empty',
					level: 'stop',
					title: 'There is nothing to play',
					why: 'Import a playlist, add files of your own, or type the address of a stream.',
					setting: 'sources.items',
					fixes: []
				}
			];

/** Entries that lead where an earlier one leads already. */
function doublesOf(items: readonly SourceItem[]): Set<SourceItem> {
	const seen = new Set<string>();
	return new Set(
		items.filter(({ location, part }) => {
			const key = `${location}${partText(part)}`;
			const isDouble = seen.has(key);
			seen.add(key);
			return isDouble;
		})
	);
}

function areDoubled(items: readonly SourceItem[]): Finding[] {
	const doubles = [...doublesOf(items)];
	if (doubles.length === 0) return [];
	return [
		{
			id: 'sources.doubles',
			level: 'note',
			title: doubles.length === 1 ? 'One entry is there twice' : `${doubles.length} entries are there twice`,
			why: `${named(doubles)}. That is fine if you mean it.`,
			setting: 'sources.items',
			fixes: [
				{
					label: 'Keep each once',
					apply: withItems((all) => {
						const again = doublesOf(all);
						return all.filter((item) => !again.has(item));
					})
				}
			]
		}
	];
}

function areUnknown(settings: SourcesSettings, context: Context): Finding[] {
	const { items } = settings;
	// What others send says itself how it is made.
	const unknown = items.filter(
		(item) =>
			!context.media(item.location) && receivedAt(item.location) === null && !ruleOf(settings.rules, item.location)
	);
	if (unknown.length === 0) return [];
	return [
		{
			id: 'sources.unknown',
			level: 'note',
			title: unknown.length === 1 ? 'One source is unknown' : `${unknown.length} sources are unknown`,
			why: `Nobody has said how ${named(unknown)} ${unknown.length === 1 ? 'is' : 'are'} made, so what happens to the sound is unknown. Drop the file, or type rate and width.`,
			setting: 'sources.items',
			fixes: []
		}
	];
}

/** Pictures without sound, where nothing shows a picture. */
function unseen(items: readonly SourceItem[], { media, facts, change }: Context): Finding[] {
	if (facts.picture !== undefined) return [];
	const isUnseen = ({ location }: SourceItem): boolean => {
		const known = media(location);
		return known?.silent === true && known.picture !== undefined;
	};
	const none = items.filter(isUnseen);
	if (none.length === 0) return [];
	return [
		{
			id: 'sources.unseen',
			level: 'caution',
			title:
				none.length === 1
					? 'One entry is a picture without sound'
					: `${none.length} entries are pictures without sound`,
			why: `${named(none)}: this endpoint shows no picture, so the player passes over ${none.length === 1 ? 'it' : 'them'}.`,
			setting: 'sources.items',
			fixes: [
				...(none.length < items.length
					? [{ label: 'Leave them out', apply: withItems((all) => all.filter((item) => !isUnseen(item))) }]
					: []),
				{ label: 'Add a picture', apply: change.showPicture() }
			]
		}
	];
}

/** What a film is that plays, and yet looks wrong. */
const FLAWS = [
	[
		'interlaced',
		'interlaced',
		'Each of its frames is two fields of different instants. Shown as they are, whatever moves has a comb at its edges.'
	],
	[
		'hdr',
		'made for HDR',
		'Its brightness is meant for a screen that is brighter than a plain one, and reaches it so: pale, without contrast.'
	]
] as const;

/** Films that the board does not decode in time, and those that look wrong. */
function tooHard(items: readonly SourceItem[], context: Context): Finding[] {
	const all = conversionsOf(items, context);
	const nameOf = (location: string): string => named([items.find((item) => item.location === location)!]);
	const looksWrong = FLAWS.flatMap(([flaw, what, why]): Finding[] => {
		const films = all.filter(({ judged }) => judged.plays && judged.flaw === flaw);
		const [first] = films;
		if (!first) return [];
		return [
			{
				id: `sources.${flaw}`,
				level: 'note',
				title:
					films.length === 1
						? `"${nameOf(first.film.location)}" is ${what}`
						: `${films.length} of the films are ${what}`,
				why: `${why} Made anew on your own computer they look as they should: the command stands below the list. Add the new file, and it takes the old one\u2019s place.`,
				setting: 'sources.items',
				fixes: []
			}
		];
	});
	const hard = all.filter(({ judged }) => !judged.plays);
	const [first] = hard;
	if (!first) return looksWrong;
	const name = items.find(({ location }) => location === first.film.location)!;
	return [
		...looksWrong,
		{
			id: 'sources.too-hard',
			level: 'caution',
			title:
				hard.length === 1
					? `The board does not play "${named([name])}"`
					: `The board does not play ${hard.length} of the films`,
			why: `${named([name])}: ${first.judged.why}. ${hard.some(({ made }) => made) ? 'Made anew on your own computer it plays: the command stands below the list. Add the new file, and it takes the old one\u2019s place.' : 'However small it is made, it does not: take a stronger board.'}`,
			setting: 'sources.items',
			fixes: []
		}
	];
}

function neverReached({ items }: SourcesSettings, context: Context): Finding[] {
	const firstStream = items.findIndex(isStreamed);
	// A stream behind a stream stands in for it; a file behind one waits for ever.
	const hidden = firstStream < 0 ? 0 : items.slice(firstStream).filter((item) => !isStreamed(item)).length;
	if (firstStream < 0 || context.facts.programme?.shuffle) return [];
	const name = items[firstStream]!.title || items[firstStream]!.location;
	if (hidden === 0)
		return firstStream === 0
			? []
			: [
					{
						id: 'sources.stays',
						level: 'note',
						title: `The list stays at "${name}"`,
						why: 'A stream has no end: what stands before it is played once after each start, then only the stream. Leave it out where the files are to come round again.',
						setting: 'sources.items',
						fixes: [
							{
								label: 'Leave the streams out',
								apply: withItems((all) => all.filter((item) => !isStreamed(item)))
							}
						]
					}
				];
	return [
		{
			id: 'sources.endless',
			level: 'caution',
			title: `${hidden} ${hidden === 1 ? 'entry is' : 'entries are'} never reached`,
			why: `"${name}" is a stream and has no end: what follows it plays only when it fails. Put files first, and streams behind them in the order in which they stand in for each other.`,
			setting: 'sources.items',
			fixes: [
				{
					label: 'Files first, then streams',
					apply: withItems((all) => [...all].sort((a, b) => Number(isStreamed(a)) - Number(isStreamed(b))))
				}
			]
		}
	];
}

function areElsewhere(settings: SourcesSettings): Finding[] {
	const disk = settings.items.filter(({ location }) => isElsewhere(settings, location));
	if (disk.length === 0) return [];
	/** The last step of the path that has a name. */
	const fileName = (location: string): string => location.split('/').findLast((step) => step !== '') ?? 'track';
	return [
		{
			id: 'sources.elsewhere',
			level: 'caution',
			title: `${disk.length === 1 ? 'One file is' : `${disk.length} files are`} expected on the endpoint`,
			why: `${disk[0]!.location} must already be there when it starts; this card set does not bring it. Type only its file name to take it along on the card.`,
			setting: 'sources.items',
			fixes: [
				{
					label: 'Take along on the card',
					apply: own((all) => ({
						...all,
						items: all.items.map((item) =>
							isElsewhere(all, item.location) ? { ...item, location: fileName(item.location) } : item
						)
					}))
				}
			]
		}
	];
}

/** A set without the bytes that it is to carry would be silent, or go on to what is there. */
function areNotHere(settings: SourcesSettings, context: Context): Finding[] {
	const gone = filesOf(settings).filter(
		({ location }) => context.isAbsent(location) && isInSet(settings, context, location)
	);
	if (gone.length === 0) return [];
	return [
		{
			id: 'sources.not-here',
			level: 'stop',
			title: gone.length === 1 ? 'One file of the list is not here' : `${gone.length} files of the list are not here`,
			why: `${named(gone)}: this browser does not have ${gone.length === 1 ? 'its' : 'their'} bytes, as after a workshop file that was brought from another one. Add ${gone.length === 1 ? 'it' : 'them'} again, under any name: ${gone.length === 1 ? 'it is' : 'they are'} known by digest. Or export the workshop with its media there, and open that.`,
			setting: 'sources.items',
			fixes: [{ label: 'Copy the files to the endpoint yourself', apply: own({ carry: 'self' }) }]
		}
	];
}

function waitForNothing({ items, waitForNetwork, stores, rules }: SourcesSettings): Finding[] {
	const isAway = (place: string): boolean => {
		const store = storeOf(stores, place);
		return store !== undefined && isShare(store);
	};
	const needsNetwork = (item: SourceItem): boolean =>
		isStreamed(item) ||
		isAway(item.location) ||
		(ruleOf(rules, item.location)?.folders.some((folder) => isAway(`${folder}/`)) ?? false);
	if (!waitForNetwork || !items.some(needsNetwork) || items.every(needsNetwork)) return [];
	return [
		{
			id: 'sources.waits',
			level: 'note',
			title: 'Files wait for the network too',
			why: 'Some entries need no network, yet nothing plays before it is there. Beginning at once plays the files and passes over streams and shares until then.',
			setting: 'sources.waitForNetwork',
			fixes: [{ label: 'Begin at once', apply: own({ waitForNetwork: false }) }]
		}
	];
}

function playedByNobody({ facts, change }: Context): Finding[] {
	if (facts.programme) return [];
	return [
		{
			id: 'sources.unplayed',
			level: 'stop',
			title: 'Nothing plays this list',
			why: 'The endpoint does without a programme, so no player goes on the card. Add it, or do without sources as well.',
			setting: 'sources',
			fixes: [
				{ label: 'Add the programme', apply: change.use('programme') },
				{ label: 'Do without sources', apply: change.use('sources', false) }
			]
		}
	];
}

export default assessSources satisfies Judge<SourcesSettings>;
