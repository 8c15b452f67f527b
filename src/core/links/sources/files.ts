import { listPath, lines, MEDIA_DIR, OF_DAYS, PLAYLIST_PATH, rootPath, textFile } from '../../files/cardFile';
import { claimsOn, type Claim } from '../../claims';
import { writeM3uLines } from '../../formats/playlist/m3u';
import type { PlaylistEntry } from '../../formats/playlist/playlist';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import type { SettingPath } from '../../link/setting';
import type { Secrets } from '../../secrets';
import { spanOfDates } from '../../onAir/item';
import { turnsOf } from '../../onAir/items';
import { partText } from '../../files/entryPart';
import { placesIn } from '../../files/mediaPlace';
import { convertFile, copyFile } from './stores/copy';
import { partFiles } from './lists/parts';
import { ruleFiles } from './lists/ruleFiles';
import { storeFiles } from './stores/storeFiles';
import { tryFiles } from './stores/tryWrite';
import type { SourcesSettings } from './settings';

/** An entry of a playlist, and where it comes from. */
interface Listed {
	readonly id: string;
	readonly entry: PlaylistEntry;
	readonly setting: SettingPath;
}

/** Pages that the player shows as pictures, each as often as its time takes turns of still pictures. */
const pageEntries = ({ facts: { pages, picture } }: Context): Listed[] =>
	(pages ?? []).flatMap(({ id, title, forSec, picture: location }, n) =>
		location === null
			? []
			: Array.from({ length: turnsOf(forSec, picture?.stillSec ?? forSec) }, () => ({
					id,
					entry: { location, title: title || id, durationSec: picture?.stillSec ?? forSec, extra: [], part: null },
					setting: `notices.pages.${n}` as const
				}))
	);

/** The playlist, and those media whose bytes are at hand. */
export function sourcesFiles(
	settings: SourcesSettings,
	context: Context,
	claims: readonly Claim[],
	secrets: Secrets
): CardFile[] {
	const { items, listTitle, header } = settings;
	const placeOf = placesIn(items);
	const entries = items.map((item) => ({
		location: `${placeOf(item.location).inPlaylist}${partText(item.part)}`,
		title: item.title || null,
		durationSec: item.durationSec,
		extra: item.extra
	}));
	const listed: Listed[] = entries.map((entry, index) => ({
		id: items[index]!.id,
		entry,
		setting: `sources.items.${index}`
	}));
	const pages = pageEntries(context);
	const all = [...pages, ...listed];
	const [head, ...rest] = writeM3uLines({ title: listTitle || null, header, entries: all.map(({ entry }) => entry) });
	const content: CardLine[] = [
		...lines('sources.listTitle', ...head!),
		...rest.flatMap((texts, index) => lines(all[index]?.setting ?? 'sources.header', ...texts))
	];
	const media = new Map<string, CardFile>();
	items.forEach((item, index) => {
		const bytes = secrets.mediaBytes?.get(item.location);
		const place = placeOf(item.location);
		if (settings.carry === 'set' && bytes && place.kind === 'card' && !media.has(place.inPlaylist))
			media.set(place.inPlaylist, {
				path: rootPath(place.inPlaylist),
				mode: '0644',
				why: `${item.title || item.location}, played from ${MEDIA_DIR}.`,
				setting: `sources.items.${index}`,
				...(bytes instanceof Blob
					? { blob: bytes, sha256: context.media(item.location)?.sha256 ?? '' }
					: { bytes, sha256: context.media(item.location)?.sha256 })
			});
	});
	return [
		textFile(rootPath(PLAYLIST_PATH), 'What is played, in order.', content),
		...claimsOn(claims, 'list').map((list) => {
			// What is no longer among the sources is left out; the programme says so.
			const taken = list.items.flatMap((id) => {
				const days = list.valid.find((known) => known.item === id);
				const span = days ? spanOfDates(days.from, days.until) : null;
				return all
					.filter((known) => known.id === id)
					.map(({ entry, setting }) => ({
						setting,
						entry: span ? { ...entry, extra: [...entry.extra, `${OF_DAYS}${span.from}-${span.until}`] } : entry
					}));
			});
			const [first, ...others] = writeM3uLines({
				title: list.title || null,
				header: [],
				entries: taken.map(({ entry }) => entry)
			});
			return textFile(rootPath(listPath(list.id)), `The playlist "${list.title || list.id}".`, [
				...lines(list.setting, ...first!),
				...others.flatMap((texts, n) => lines(taken[n]?.setting ?? list.setting, ...texts))
			]);
		}),
		...media.values(),
		...partFiles(settings),
		...copyFile(settings, context),
		...convertFile(settings, context),
		...storeFiles(settings, secrets),
		...tryFiles(settings),
		...ruleFiles(settings)
	];
}
