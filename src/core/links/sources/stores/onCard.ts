import type { Claim } from '../../../claims';
import { MEDIA_DIR } from '../../../files/cardFile';
import { placeKind, placesIn } from '../../../files/mediaPlace';
import { shellWord } from '../../../formats/shell/quote';
import type { Context } from '../../../link/context';
import type { SourceItem, SourcesSettings } from '../settings';

/** The card set carries that file; else the person copies it. */
export const isInSet = ({ carry }: SourcesSettings, context: Context, location: string): boolean =>
	carry === 'set' && (context.media(location)?.kept ?? 'person') !== 'person';

const listed = new WeakMap<readonly SourceItem[], SourceItem[]>();

/** Files of the list that go to the endpoint, each once; asked for by claims, findings and steps alike. */
export function filesOf({ items }: SourcesSettings): SourceItem[] {
	let files = listed.get(items);
	if (!files) {
		const byLocation = new Map(items.map((item) => [item.location, item]));
		listed.set(items, (files = [...byLocation.values()].filter(({ location }) => placeKind(location) === 'card')));
	}
	return files;
}

/** Those that the person copies. */
export const byHand = (settings: SourcesSettings, context: Context): SourceItem[] =>
	filesOf(settings).filter(({ location }) => !isInSet(settings, context, location));

/** Each file is asked for on the endpoint, by its digest where that is known; the folder is the keeper's where they fill it. */
export function mediaClaims(settings: SourcesSettings, context: Context): Claim[] {
	const placeOf = placesIn(settings.items);
	const { keeper } = context.facts;
	return [
		...(keeper !== '' && byHand(settings, context).length
			? [
					{
						on: 'folder',
						from: 'sources',
						what: 'media',
						path: MEDIA_DIR,
						owner: keeper,
						setting: 'sources.items'
					} as const
				]
			: []),
		...filesOf(settings).map((item): Claim => {
			const path = shellWord(placeOf(item.location).inPlaylist);
			const inSet = isInSet(settings, context, item.location);
			const sha256 = context.media(item.location)?.sha256;
			const asCarried = `cmp "$here"/root${path} ${path}`;
			return {
				on: 'check',
				from: 'sources',
				what: item.title || item.location,
				label: `${item.title || item.location} is there${inSet || sha256 ? ', whole' : ''}`,
				command: inSet ? asCarried : sha256 ? `has_digest ${sha256} ${path}` : `test -s ${path}`,
				setting: 'sources.items'
			};
		})
	];
}
