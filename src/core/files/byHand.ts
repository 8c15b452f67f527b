/** What somebody with a phone wants to be shown: an entry's id and until when, seconds since 1970; "none 0": what the rules say. */
export const BY_HAND_PATH = '/run/yphos-show/now';
/** So long it stands unless it is taken back, min. */
export const BY_HAND_MIN = 30;
/** The word by which the rules are asked for again. */
export const BACK_WORD = 'back-to-rules';
/** The word by which an entry is asked for. */
export const showWord = (id: string): string => `show-${id}`;

/** What is ordered, and until when, ms; null: nothing, or what nobody has written so. */
export function readByHand(text: string | null): { readonly id: string; readonly untilUtcMs: number } | null {
	const [, id = '', until = ''] = /^([A-Za-z0-9_-]{1,80}) (\d{1,12})\n?$/.exec(text ?? '') ?? [];
	return id === '' || until === '0' ? null : { id, untilUtcMs: Number(until) * 1000 };
}
