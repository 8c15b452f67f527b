import type { Claim } from '../../../claims';
import { PICTURES_UNIT, PLAYER_UNIT } from '../../../files/cardFile';
import { shownAt } from '../places';
import type { NoticesSettings } from '../settings';

/** What a picture of a page takes, bytes. Typical of text on plain ground at 1920 by 1080; photographs in it take ten times as much. */
export const PICTURE_BYTES = 150_000;

/** What pages as pictures need: room, their units, and the player after them. How many there are is not known before feeds are read. */
export function pictureClaims({ pages, picturesDays }: NoticesSettings): Claim[] {
	const own = { from: 'notices', what: 'pictures of pages', setting: 'notices.shownBy' } as const;
	return [
		{ on: 'store', from: 'notices', what: own.what, bytes: pages.length * (picturesDays + 1) * PICTURE_BYTES },
		...(['service', 'timer'] as const).map((ending): Claim => ({
			...own,
			on: 'unit',
			name: `${PICTURES_UNIT}.${ending}`
		})),
		{ ...own, on: 'start', of: PLAYER_UNIT, after: `${PICTURES_UNIT}.service`, wants: true },
		...pages.map(({ id, title }): Claim => ({
			...own,
			on: 'check',
			label: `there is a picture of ${title || id}`,
			command: `test -s ${shownAt(id)}`
		}))
	];
}
