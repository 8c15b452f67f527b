import { changing } from '../../../changes';
import { clockText } from '../../../files/entryPart';
import { placeKind } from '../../../files/mediaPlace';
import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { WHOLE_PART, withPart } from './parts';
import { ruleOf } from './rules';
import type { SourceItem, SourcesSettings } from '../settings';

type Part = NonNullable<SourceItem['part']>;

/** The same entries with what `part` changes of theirs. */
const withParts = (ids: readonly string[], part: (known: Part) => Partial<Part>) =>
	changing<SourcesSettings>('sources')((settings) => ({
		...settings,
		items: settings.items.map((item) => (ids.includes(item.id) ? withPart(item, part(item.part ?? WHOLE_PART)) : item))
	}));
const isTimed = ({ part }: SourceItem): boolean => part !== null && (part.fromSec > 0 || part.untilSec !== null);

/** Parts that begin or end where nothing is, and parts of what has none. */
export function assessParts(settings: SourcesSettings, { media }: Context): Finding[] {
	const out: Finding[] = [];
	const say = (
		id: string,
		level: Finding['level'],
		items: readonly SourceItem[],
		title: (name: string) => string,
		why: string,
		fix: { label: string; part: (known: Part) => Partial<Part> }
	): void => {
		const [first] = items;
		if (!first) return;
		const ids = items.map((item) => item.id);
		out.push({
			id,
			level,
			title: `${title(`"${first.title || first.location}"`)}${items.length > 1 ? `, and ${items.length - 1} more` : ''}`,
			why,
			setting: `sources.items.${settings.items.indexOf(first)}`,
			fixes: [{ label: fix.label, apply: withParts(ids, fix.part) }]
		});
	};
	const isStill = ({ location }: SourceItem): boolean => media(location)?.picture?.framesPerSec === null;
	const lastsSec = ({ location }: SourceItem): number | null => {
		const ms = media(location)?.durationMs ?? null;
		return ms === null ? null : ms / 1000;
	};
	const hasNone = ({ location }: SourceItem): boolean =>
		placeKind(location) === 'stream' || ruleOf(settings.rules, location) !== undefined || /\.m3u8?$/i.test(location);
	const timed = settings.items.filter(isTimed);
	say(
		'sources.part-of-stream',
		'caution',
		timed.filter(hasNone),
		(name) => `${name} has no beginning to count from`,
		'A stream, or a list that the endpoint chooses itself, is played as it comes. It can be made softer, but not shorter.',
		{ label: 'Play all of it', part: () => ({ fromSec: 0, untilSec: null }) }
	);
	const files = timed.filter((item) => !hasNone(item) && !isStill(item));
	const beyond = files.filter((item) => {
		const sec = lastsSec(item);
		return sec !== null && item.part!.fromSec >= sec;
	});
	say(
		'sources.part-beyond',
		'stop',
		beyond,
		(name) => `${name} begins behind its end`,
		`${beyond.length ? `It is ${clockText(lastsSec(beyond[0]!) ?? 0)} long. ` : ''}The player goes on to the next at once: nothing of it is heard or seen.`,
		{ label: 'Begin at its beginning', part: () => ({ fromSec: 0, untilSec: null }) }
	);
	const short = files.filter((item) => {
		const sec = lastsSec(item);
		return !beyond.includes(item) && sec !== null && item.part!.untilSec !== null && item.part!.untilSec > sec;
	});
	say(
		'sources.part-long',
		'note',
		short,
		(name) => `${name} ends before it is to`,
		`${short.length ? `It is ${clockText(lastsSec(short[0]!) ?? 0)} long. ` : ''}It is played to its end, and what follows comes sooner than you may think.`,
		{ label: 'Play it to its end', part: () => ({ untilSec: null }) }
	);
	say(
		'sources.part-of-still',
		'note',
		timed.filter((item) => isStill(item) && item.part!.fromSec > 0),
		(name) => `${name} is a still picture`,
		'It has no beginning to leave out: it stands as long as is between the two times.',
		{
			label: 'Count from nothing',
			part: (known) => ({
				fromSec: 0,
				untilSec: known.untilSec === null ? null : known.untilSec - known.fromSec
			})
		}
	);
	return out;
}
