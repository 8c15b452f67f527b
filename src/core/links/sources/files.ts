import { listPath, lines, MEDIA_DIR, PLAYLIST_PATH, rootPath, textFile } from '../../files/cardFile';
import { claimsOn, type Claim } from '../../claims';
import { writeM3uLines } from '../../formats/playlist/m3u';
import type { CardFile, CardLine, Context, Secrets } from '../../link';
import { placesIn } from '../../files/mediaPlace';
import { convertFile, copyFile } from './copy';
import { ruleFiles } from './ruleFiles';
import { storeFiles } from './storeFiles';
import { tryFiles } from './tryWrite';
import type { SourcesSettings } from './settings';

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
		location: placeOf(item.location).inPlaylist,
		title: item.title || null,
		durationSec: item.durationSec,
		extra: item.extra
	}));
	const [head, ...rest] = writeM3uLines({ title: listTitle || null, header, entries });
	const content: CardLine[] = [
		...lines('sources.listTitle', ...head!),
		...rest.flatMap((texts, index) =>
			lines(index < items.length ? `sources.items.${index}` : 'sources.header', ...texts)
		)
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
				const index = items.findIndex((item) => item.id === id);
				return index < 0 ? [] : [{ index, entry: entries[index]! }];
			});
			const [first, ...others] = writeM3uLines({
				title: list.title || null,
				header: [],
				entries: taken.map(({ entry }) => entry)
			});
			return textFile(rootPath(listPath(list.id)), `The playlist "${list.title || list.id}".`, [
				...lines(list.setting, ...first!),
				...others.flatMap((texts, n) => lines(taken[n] ? `sources.items.${taken[n].index}` : list.setting, ...texts))
			]);
		}),
		...media.values(),
		...copyFile(settings, context),
		...convertFile(settings, context),
		...storeFiles(settings, secrets),
		...tryFiles(settings),
		...ruleFiles(settings)
	];
}
