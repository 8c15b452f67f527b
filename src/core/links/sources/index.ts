/** The sources: a list of streams and files. Says what each brings; the sound link says what becomes of it. */
import { changing } from '../../changes';
import type { Claim } from '../../claims';
import { each } from '../../plan/saved';
import { entryClaims } from '../../basics/entries';
import { formatBytes, withUnit } from '../../basics/format';
import { playsList } from '../../link/wish';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { placeKind, placesIn } from '../../files/mediaPlace';
import { expectedDropouts, lagAfter, pausesOf } from './streams/buffer';
import { isInSet, mediaClaims } from './stores/onCard';
import { SOURCES_FAULTS } from './faults';
import { FILE_MS, STREAM_MS } from './timing';
import { isFetched, RECEIVE_ADDRESS, RECEIVED_BPS, receivedAt } from './streams/receive';
import type { Media } from '../../parts/media';
import { partClaims } from './lists/parts';
import { ruleClaims, ruleFigures, ruleOf } from './lists/rules';
import { sourcesSettings, type SourcesSettings } from './settings';
import { isShare, mountPoint, storeOf, storeWords } from './stores/stores';
import { storeClaims } from './stores/storeFiles';
import './offers';
import { PLAYER_UNIT } from '../../files/cardFile';

/** For a stream whose bit rate nobody has said. Typical of music streams. */
const ASSUMED_STREAM_BPS = 192_000;
/** For a file on a share that nobody has looked into: uncompressed sound of a disc. */
const ASSUMED_FILE_BPS = 1_411_200;

/** What a file needs on its way while it plays; null: nobody knows. */
const bitsPerSecOf = (media: Media | null): number | null =>
	media?.sizeBytes && media.durationMs ? (media.sizeBytes * 8000) / media.durationMs : null;

/** The player gathers so much before it begins, and again after each dropout. Source: mpv(1), --cache-pause-initial. */
const bufferClaims = ({ bufferSec, items }: SourcesSettings): Claim[] =>
	bufferSec > 0 && items.some(isFetched)
		? (
				[
					['cache-pause-initial', 'yes'],
					['cache-pause-wait', String(bufferSec)]
				] as const
			).map(([option, value]) => ({
				on: 'player',
				from: 'sources',
				what: 'streams',
				option,
				value,
				setting: 'sources.bufferSec'
			}))
		: [];

function claims(settings: SourcesSettings, context: Context): Claim[] {
	const out: Claim[] = [];
	for (const item of settings.items) {
		const media = context.media(item.location);
		const what = item.title || item.location;
		const kind = placeKind(item.location);
		const port = receivedAt(item.location);
		if (!media?.silent) out.push({ on: 'sound', from: 'sources', what, shape: media });
		const store = storeOf(settings.stores, item.location);
		if (store && isShare(store))
			out.push({ on: 'path', from: 'sources', what, bitsPerSec: bitsPerSecOf(media) ?? ASSUMED_FILE_BPS });
		if (kind === 'stream')
			out.push({
				on: 'path',
				from: 'sources',
				what,
				bitsPerSec: media?.bitRateBps ?? (port === null ? ASSUMED_STREAM_BPS : RECEIVED_BPS)
			});
		if (port !== null)
			out.push({ on: 'listen', from: 'sources', what, port, protocol: 'udp', setting: 'sources.items' });
		// What nobody has looked into may show something.
		if (!media || media.picture) out.push({ on: 'picture', from: 'sources', what, shape: media?.picture ?? null });
		if (kind === 'card')
			out.push({
				on: 'store',
				from: 'sources',
				what,
				bytes: media?.sizeBytes ?? 0,
				inSet: isInSet(settings, context, item.location)
			});
	}
	out.push(
		...mediaClaims(settings, context),
		...storeClaims(settings),
		...bufferClaims(settings),
		...partClaims(settings),
		...ruleClaims(settings),
		...entryClaims(
			'sources',
			'sources',
			settings.items.map(({ title, location }) => ['sources.items', title || 'Source', location] as const)
		)
	);
	if (settings.waitForNetwork && out.some((claim) => claim.on === 'path'))
		out.push({
			on: 'start',
			of: PLAYER_UNIT,
			from: 'sources',
			what: 'streams',
			after: 'network-online.target',
			wants: true,
			setting: 'sources.waitForNetwork'
		});
	return out;
}

function dropoutFigure(settings: SourcesSettings, context: Context): Figure[] {
	const pauses = pausesOf(settings, context);
	if (!pauses || !settings.items.some(isFetched)) return [];
	const perDay = expectedDropouts(pauses, settings.bufferSec);
	const text =
		perDay < 1 / 30
			? 'less than one a month'
			: perDay < 0.95
				? `one in ${withUnit(1 / perDay, 0, 'days')}`
				: `${perDay.toFixed(perDay < 10 ? 1 : 0)} a day`;
	return [
		{
			id: 'dropouts',
			setting: 'sources.bufferSec',
			label: 'Dropouts of streams',
			text,
			value: perDay,
			sure: settings.pauses ? 'measured' : 'assumed',
			from: `${pauses.perHour} pauses an hour of ${pauses.meanSec}\u2009s on average, ${settings.pauses ? 'as measured' : 'as is usual of this way'}, against ${withUnit(settings.bufferSec, 1, 's')} gathered before, in a stream that goes on for a day. Each dropout leaves the player further behind and bears a longer pause, so most fall in the first hours: in the end it is about ${withUnit(lagAfter(pauses, settings.bufferSec, perDay), 1, 's')} behind.`
		}
	];
}

/** Before people are up. */
const CHOOSE_AT = '04:30';

/** The link that says what is to be played. */
export const sources: Link<'sources', SourcesSettings> = {
	id: 'sources',
	title: 'Sources',
	settings: sourcesSettings,
	version: 8,
	migrations: {
		1: (saved) => ({ used: true, ...saved }),
		2: (saved) => ({ carry: 'set', ...saved }),
		3: (saved) => ({ stores: [], bufferSec: 0, pauses: null, ...saved }),
		4: (saved) => ({ rules: [], chooseAt: [CHOOSE_AT], ...saved }),
		// Shares could only be read.
		5: (saved) => ({
			...saved,
			stores: each(saved.stores, (store) => (store.kind === 'stick' ? store : { access: 'read', ...store }))
		}),
		6: (saved) => ({ ...saved, items: each(saved.items, (item) => ({ part: null, ...item })) }),
		7: (saved) => ({
			...saved,
			stores: each(saved.stores, (store) =>
				store.fileSystem === 'ntfs3' ? { ...store, fileSystem: 'ntfs-3g' } : store
			)
		})
	},
	empty: ({ kind }) => ({
		used: playsList(kind),
		listTitle: '',
		header: [],
		items:
			kind === 'second-screen'
				? [
						{
							id: 'screen',
							location: RECEIVE_ADDRESS,
							title: 'The computer\u2019s screen',
							durationSec: null,
							extra: [],
							part: null
						}
					]
				: [],
		waitForNetwork: true,
		stores: [],
		bufferSec: 0,
		pauses: null,
		rules: [],
		chooseAt: [CHOOSE_AT],
		carry: 'set'
	}),
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	publish: ({ items, stores, waitForNetwork, bufferSec }) => {
		const isStream = ({ location }: { location: string }): boolean => placeKind(location) === 'stream';
		const stream = items[0] !== undefined && isStream(items[0]);
		// A list within the list is no file that could stand in for a stream.
		const file = items.find((item) => !isStream(item) && !/\.m3u8?$/i.test(item.location));
		return {
			listed: items.length,
			stores: stores.map((store) => ({ at: mountPoint(store), words: storeWords(store) })),
			entries: items,
			streams: items.filter(isFetched).length,
			firstFile: file ? placesIn(items)(file.location).inPlaylist : null,
			receives: items.some(({ location }) => receivedAt(location) !== null),
			beginsWith: {
				stream,
				waits: waitForNetwork && items.some(isStream),
				openMs: stream ? STREAM_MS + bufferSec * 1000 : FILE_MS
			}
		};
	},
	changes: { carryMedia: (carry) => changing<SourcesSettings>('sources')({ carry }) },
	key: 'm',
	place: { column: 'content', row: 1, wires: [{ to: 'programme', carries: 'data' }] },
	faults: SOURCES_FAULTS,
	claims,
	figures(settings, context) {
		const places = settings.items.map((item) => placeKind(item.location));
		const streams = places.filter((kind) => kind === 'stream').length;
		const chosen = settings.items.filter(({ location }) => ruleOf(settings.rules, location)).length;
		const files = places.length - streams - chosen;
		const bytes = settings.items.reduce((sum, item) => sum + (context.media(item.location)?.sizeBytes ?? 0), 0);
		const counted = [
			...(streams ? [`${streams} stream${streams > 1 ? 's' : ''}`] : []),
			...(files ? [`${files} file${files > 1 ? 's' : ''}`] : []),
			...(chosen ? [`${chosen} rule${chosen > 1 ? 's' : ''}`] : [])
		].join(' + ');
		return [
			{
				id: 'count',
				setting: 'sources.items',
				label: 'In the list',
				text: counted || 'empty list',
				value: places.length,
				sure: 'exact',
				from: 'The list as it stands.',
				telling: true
			},
			{
				id: 'bytes',
				setting: 'sources.items',
				label: 'Files together',
				text: formatBytes(bytes),
				value: bytes,
				sure: 'exact',
				from: 'Sizes of the files whose facts are known.'
			},
			...dropoutFigure(settings, context),
			...ruleFigures(settings, context)
		];
	}
};
