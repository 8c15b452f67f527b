import type { Context } from '../../../link/context';
import type { Finding, Fix } from '../../../link/finding';
import type { SettingPath } from '../../../link/setting';
import { change } from '../pages/edits';
import { remarksOn, type Happening } from './agenda';
import { readFeed } from './feed';
import type { Feed } from './schema';
import type { NoticesSettings } from '../settings';

/** Whether a feed is shown, can be fetched, and can be read. */
export function assessFeed(
	settings: NoticesSettings,
	{ venue, facts, change: changes }: Context,
	feed: Feed,
	n: number
): Finding[] {
	const setting = `notices.feeds.${n}` as const;
	const name = feed.title || feed.id;
	const without: Fix = {
		label: 'Take the feed out',
		apply: change((all) => ({
			...all,
			feeds: all.feeds.filter(({ id }) => id !== feed.id),
			pages: all.pages.map((page) => ({
				...page,
				zones: page.zones.filter((zone) => zone.feed !== feed.id)
			}))
		}))
	};
	const users = settings.pages.flatMap(({ zones }) => zones).filter((zone) => zone.feed === feed.id);
	if (users.length === 0)
		return [
			{
				id: `notices.feed-unused-${feed.id}`,
				level: 'note',
				title: `No zone shows the feed \u201c${name}\u201d`,
				why: 'It goes along, and nobody sees it.',
				setting,
				fixes: [without]
			}
		];
	const out: Finding[] = [];
	if (feed.address && facts.way === 'none')
		out.push({
			id: `notices.feed-offline-${feed.id}`,
			level: 'stop',
			title: `\u201c${name}\u201d is fetched, and there is no network`,
			why: 'It would stay as it was when the card was written. Join a network, or let the feed go along.',
			setting,
			fixes: [
				{ label: 'Use Ethernet', apply: changes.useWired() },
				{
					label: 'Let it go along as it is',
					apply: change((all) => ({
						...all,
						feeds: all.feeds.map((one) => (one.id === feed.id ? { ...one, address: '' as const } : one))
					}))
				}
			]
		});
	if (feed.text.trim() === '') {
		out.push({
			id: `notices.feed-empty-${feed.id}`,
			level: feed.address ? 'note' : 'stop',
			title: feed.address ? `Nobody has looked at \u201c${name}\u201d yet` : `The feed \u201c${name}\u201d is empty`,
			why: feed.address
				? 'Until the endpoint has fetched it, its zones show what they are told to show then. Fetch it here once, so that you see whether it fits.'
				: 'Its zones show what they are told to show then. Type or choose what it holds.',
			setting,
			fixes: feed.address ? [] : [without]
		});
		return out;
	}
	const read = readFeed(feed.kind, feed.text, venue.timeZone);
	if ('wrong' in read)
		out.push({
			id: `notices.feed-wrong-${feed.id}`,
			level: 'stop',
			title: `\u201c${name}\u201d cannot be read`,
			why: `${read.wrong} Until then its zones show what they are told to show.`,
			setting,
			fixes: [without]
		});
	if (feed.kind === 'calendar' && 'value' in read)
		out.push(...assessCalendar(feed.id, name, setting, read.value as readonly Happening[], without, venue.timeZone));
	return out;
}

/** Zones that nobody knows, and events that come nowhere. */
function assessCalendar(
	id: string,
	name: string,
	setting: SettingPath,
	happenings: readonly Happening[],
	without: Fix,
	timeZone: string
): Finding[] {
	const out: Finding[] = [];
	const { leftOut: odd, strangeZones } = remarksOn(happenings);
	if (strangeZones.length > 0)
		out.push({
			id: `notices.feed-zone-${id}`,
			level: 'note',
			title: `\u201c${name}\u201d has a time zone that is not known`,
			why: `${strangeZones
				.slice(0, 3)
				.map((zone) => `\u201c${zone}\u201d`)
				.join(
					', '
				)}: no zone has that name, and no clocks go as the file says. Its events are shown by the venue\u2019s clock, ${timeZone}. If they belong elsewhere, give the calendar that they come from a zone by its place, such as Europe/Oslo.`,
			setting,
			fixes: []
		});
	if (odd.length > 0)
		out.push({
			id: `notices.feed-endless-${id}`,
			level: 'caution',
			title: `${odd.length === 1 ? 'An event' : `${odd.length} events`} of \u201c${name}\u201d would be shown nowhere`,
			why: `${odd
				.slice(0, 3)
				.map((title) => `\u201c${title}\u201d`)
				.join(
					', '
				)}: the rule by which it comes again is none, or takes so many steps to follow that a page would stand still. Give it a later beginning, an end, or a plain rule in the calendar that it comes from.`,
			setting,
			fixes: [without]
		});
	return out;
}
