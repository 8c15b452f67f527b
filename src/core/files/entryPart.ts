/**
 * What of an entry is played: from, until, and how much softer. It stands behind the place in a playlist as a media fragment, so that the
 * same file may come again with another part. Source: W3C Media Fragments URI 1.0, 4.2.1 (t=from,until in seconds); `gain` (dB) is ours.
 */
export interface EntryPart {
	readonly fromSec: number;
	/** null: to its end. Of a still picture: how long it stands. */
	readonly untilSec: number | null;
	readonly quieterDb: number;
}

const plain = (value: number): string => String(Math.round(value * 1000) / 1000);

/** Behind an entry's place; "": all of it, as loud as it is. */
export function partText(part: EntryPart | null): string {
	if (!part || (part.fromSec === 0 && part.untilSec === null && part.quieterDb === 0)) return '';
	const until = part.untilSec === null ? '' : `,${plain(part.untilSec)}`;
	return `#t=${plain(part.fromSec)}${until}${part.quieterDb ? `&gain=-${plain(part.quieterDb)}` : ''}`;
}

const WRITTEN = /#t=(\d{1,9}(?:\.\d{1,3})?)(?:,(\d{1,9}(?:\.\d{1,3})?))?(?:&gain=-(\d{1,3}(?:\.\d{1,3})?))?$/;

/** The place without what stands behind it, and that; null: nothing of that kind does. */
export function partedPlace(location: string): { readonly location: string; readonly part: EntryPart | null } {
	const at = location.lastIndexOf('#t=');
	const found = at > 0 ? WRITTEN.exec(location.slice(at)) : null;
	const [, from = '', until, quieter] = found ?? [];
	if (!found || (until !== undefined && Number(until) <= Number(from))) return { location, part: null };
	return {
		location: location.slice(0, at),
		part: {
			fromSec: Number(from),
			untilSec: until === undefined ? null : Number(until),
			quieterDb: Number(quieter ?? 0)
		}
	};
}

/** "from 0:12 until 0:40.5, 6 dB softer"; "": all of it. */
export function partInWords(part: EntryPart | null): string {
	if (!part) return '';
	const { fromSec, untilSec, quieterDb } = part;
	const span = [
		...(fromSec ? [`from ${clockText(fromSec)}`] : []),
		...(untilSec === null ? [] : [`until ${clockText(untilSec)}`])
	];
	return [...(span.length ? [span.join(' ')] : []), ...(quieterDb ? [`${plain(quieterDb)}\u2009dB softer`] : [])].join(
		', '
	);
}

/** "1:02:03.5" */
export function clockText(sec: number): string {
	const whole = Math.floor(sec);
	const rest = Math.round((sec - whole) * 1000) / 1000;
	const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
	const two = (value: number): string => String(value).padStart(2, '0');
	return `${h ? `${h}:${two(m)}` : m}:${two(s)}${rest ? String(rest).slice(1) : ''}`;
}

/** Seconds of "83.5", "1:23.5" or "1:02:03"; null: that is no time. */
export function clockSeconds(text: string): number | null {
	const found = /^(?:(?:(\d{1,3}):)?(\d{1,3}):)?(\d{1,6})(?:[.,](\d{1,3}))?$/.exec(text.trim());
	if (!found) return null;
	const [, h = '0', m = '0', s, rest = '0'] = found;
	return Number(h) * 3600 + Number(m) * 60 + Number(`${s}.${rest}`);
}

/** How long it plays of something that lasts so long; null: without end, or nobody knows. Of a still, what it stands for. */
export function partLastsMs(
	part: EntryPart | null | undefined,
	wholeMs: number | null,
	isStill = false
): number | null {
	if (!part) return wholeMs;
	const endMs = part.untilSec === null ? wholeMs : part.untilSec * 1000;
	const lastMs = endMs === null || wholeMs === null || isStill ? endMs : Math.min(endMs, wholeMs);
	return lastMs === null ? null : Math.max(0, lastMs - part.fromSec * 1000);
}
