import type { Rehearsal } from '$core/engines/rehearse';
import { placesIn } from '$core/files/mediaPlace';
import { SHOWN_DIR } from '$core/links/notices/places';
import type { Seen } from '$core/links/picture/seen';
import type { Heard } from '$core/links/sound/heard';
import { heardIn } from '$core/links/sound/track';
import type { Plan } from '$core/plan/plan';

type Event = Rehearsal['events'][number];
type Span = Rehearsal['tracks'][number]['spans'][number];

/** What there is to be heard and seen at one moment of a rehearsal. */
export interface Moment {
	/** All that has happened until then. */
	readonly past: readonly Event[];
	readonly ear: Span | null;
	readonly eye: Span | null;
	/** What the player shows; null: nothing that can be seen. */
	readonly seen: Seen | null;
	/** Title of what plays; "": nothing has begun. */
	readonly playing: string;
	/** How that sounds; null: not heard yet. */
	readonly heard: Heard | null;
}

const NOTHING: Moment = { past: [], ear: null, eye: null, seen: null, playing: '', heard: null };

/** Of a track, at this moment; behind its end, the last. */
const spanAt = (run: Rehearsal, track: string, atMs: number): Span | null => {
	const spans = run.tracks.find(({ id }) => id === track)?.spans ?? [];
	return spans.find(({ fromMs, toMs }) => atMs >= fromMs && atMs < toMs) ?? spans.at(-1) ?? null;
};

/** What somebody at the set has before them then. */
export function momentOf(run: Rehearsal | null, atMs: number): Moment {
	if (!run) return NOTHING;
	const past = run.events.filter((event) => event.atMs <= atMs);
	const eye = spanAt(run, 'eye', atMs);
	const shows = past.findLast(({ from, code }) => from === 'picture' && code === 'shows');
	const isLit = eye !== null && ['picture', 'wrong'].includes(eye.state) && eye.why.code !== 'not-taken';
	const begun = past.findLast(({ code }) => code === 'begins')?.data as { title: string; id: string } | undefined;
	const heard = heardIn(run.tracks).findLast((one) => one.heard.id === begun?.id && one.atMs <= atMs);
	return {
		past,
		ear: spanAt(run, 'ear', atMs),
		eye,
		seen: isLit ? ((shows?.data as { seen: Seen } | undefined)?.seen ?? null) : null,
		playing: begun?.title ?? '',
		heard: heard?.heard ?? null
	};
}

/** The entry that is shown, by the place under which the endpoint has it. */
export function itemShown({ sources }: Plan, seen: Seen | null): Plan['sources']['items'][number] | null {
	const placeOf = placesIn(sources.items);
	return sources.items.find(({ location }) => placeOf(location).inPlaylist === seen?.id) ?? null;
}

/** The page that is shown, by a browser or as a picture. */
export const pageShown = ({ notices }: Plan, seen: Seen | null): Plan['notices']['pages'][number] | null =>
	(notices.used && notices.pages.find(({ id }) => [`page:${id}`, `${SHOWN_DIR}/${id}.png`].includes(seen?.id ?? ''))) ||
	null;
