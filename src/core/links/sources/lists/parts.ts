import type { Claim } from '../../../claims';
import { lines, rootPath, textFile } from '../../../files/cardFile';
import { partText } from '../../../files/entryPart';
import { PARTS, PARTS_PATH } from '../../../files/partsScript';
import type { CardFile } from '../../../link/file';
import type { SourceItem, SourcesSettings } from '../settings';

/** All of an entry, as loud as it is. */
export const WHOLE_PART = { fromSec: 0, untilSec: null, quieterDb: 0 } as const;

/** An entry with another part; all of it is none. */
export function withPart(item: SourceItem, part: Partial<NonNullable<SourceItem['part']>>): SourceItem {
	const wanted = { ...(item.part ?? WHOLE_PART), ...part };
	return { ...item, part: partText(wanted) === '' ? null : wanted };
}

const hasParts = ({ items }: SourcesSettings): boolean => items.some(({ part }) => partText(part) !== '');

/** The player loads the script where an entry has a part. */
export const partClaims = (settings: SourcesSettings): Claim[] =>
	hasParts(settings)
		? [
				{
					on: 'player',
					from: 'sources',
					what: 'parts of entries',
					option: 'script',
					value: PARTS_PATH,
					setting: 'sources.items'
				}
			]
		: [];

/** The script itself. */
export const partFiles = (settings: SourcesSettings): CardFile[] =>
	hasParts(settings)
		? [
				textFile(
					rootPath(PARTS_PATH),
					'Begins and ends entries where the playlist says, and makes them softer.',
					lines('sources.items', ...PARTS)
				)
			]
		: [];
