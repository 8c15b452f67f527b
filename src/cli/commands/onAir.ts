import { linesOf } from '$core/formats/lines';
import { readFileSync } from 'node:fs';
import { chain } from '$core/chain';
import { derive } from '$core/engines/derive';
import { dayPartsFor, smilFor } from '$core/links/programme/rules/openFormats';
import { WEEKDAYS } from '$core/basics/weekdays';
import { wallClockMs } from '$core/formats/systemd/zone';
import { itemAt } from '$core/onAir/item';
import { resolve, type OnAir } from '$core/onAir/onAir';
import { itemsOf } from '$core/onAir/items';
import { lines, textFile } from '$core/files/cardFile';
import { programmeBook } from '$core/onAir/book';
import { becauseWords, showWords, whatsOn } from '$core/links/programme/rules/whatsOn';
import type { Workshop } from '$core/plan/workshop';
import { complain, readPlanFile, Refusal, writeCardFiles, type PlanFile } from '../files';
import { type Flags, type Command, text, say, sayJson, need } from '../say';
import { chosen, onlyOne, seenFrom } from '../endpoints';
import { startOf, span, lengthOf } from '../time';

/** What is on at an instant, and why; with --for, all that follows. */
export const onAir: Command = (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	if (flags.at === '-') return onAirAtEach(workshop, flags, media);
	const at = startOf(flags);
	const lists = text(flags, 'lists');
	if (flags.smil || lists) {
		const endpoint = onlyOne(workshop, flags);
		const around = seenFrom(workshop, endpoint, flags, media);
		const time = [at, at + span(text(flags, 'for') ?? '7d', '--for')] as const;
		if (flags.smil) say(smilFor(chain, endpoint.plan, around, time).trimEnd());
		if (lists) {
			const files = dayPartsFor(chain, endpoint.plan, around, time);
			writeCardFiles(
				lists,
				files.map(({ path, text: content }) => textFile(path, '', lines('programme', ...linesOf(content.trimEnd()))))
			);
			complain(`${endpoint.id}: ${files.length} files in ${lists}`);
		}
		return 0;
	}
	const until = flags.for === undefined ? null : at + lengthOf(flags);
	const { timeZone } = workshop.venue;
	const when = (utcMs: number): string => {
		const wall = new Date(wallClockMs(timeZone, utcMs));
		return `${WEEKDAYS[(wall.getUTCDay() + 6) % 7]} ${wall.toISOString().slice(0, 16).replace('T', ' ')}`;
	};
	const told = chosen(workshop, flags).map((endpoint) => {
		const { programme, sources, brief } = endpoint.plan;
		const { context } = derive(chain, endpoint.plan, seenFrom(workshop, endpoint, flags, media));
		const book = programmeBook(programme, context.venue);
		const say = (on: OnAir, fromUtcMs: number, untilUtcMs: number | null) => ({
			from: new Date(fromUtcMs).toISOString(),
			until: untilUtcMs === null ? null : new Date(untilUtcMs).toISOString(),
			show: on.show,
			shows: showWords(on.show, programme, sources.listTitle),
			rule: on.line?.show === 'quiet' ? null : (on.line?.rule ?? null),
			because: becauseWords(on, book)
		});
		const now = whatsOn(book, at);
		// A page follows the clock to the item; the player of files goes through its list by itself.
		const item = context.facts.pages ? itemAt(book, (show) => itemsOf(show, programme, context), at).item : null;
		return {
			id: endpoint.id,
			name: brief.name,
			...(until === null && item ? { item: { id: item.id, title: item.title } } : {}),
			on:
				until === null
					? [say(now, at, now.untilUtcMs)]
					: resolve(book, at, until).map((on) => say(on, on.fromUtcMs, on.untilUtcMs))
		};
	});
	if (flags.json) sayJson(told);
	else
		for (const { name, on, item } of told)
			for (const { from, until: ends, shows, because } of on)
				say(
					`${name.padEnd(18)}${when(Date.parse(from))}${ends ? ` to ${when(Date.parse(ends))}` : '              \u2026'.padEnd(24)}  ${item ? `${item.title}: ` : ''}${shows} (${because})`
				);
	return 0;
};

/** The same for each instant of standard input, a line of JSON each: the item that a page shows, or the list where the player has it. */
function onAirAtEach(workshop: Workshop, flags: Flags, media: PlanFile['media']): number {
	const [endpoint] = chosen(workshop, flags);
	if (!endpoint) throw new Refusal('Say which with --endpoint ID.');
	const { programme } = endpoint.plan;
	const { context } = derive(chain, endpoint.plan, seenFrom(workshop, endpoint, flags, media));
	const book = programmeBook(programme, context.venue);
	for (const line of readFileSync(0, 'utf8').split('\n')) {
		if (line.trim() === '') continue;
		const {
			show,
			line: rule,
			item
		} = itemAt(book, (list) => itemsOf(list, programme, context), startOf({ ...flags, at: line.trim() }));
		say(JSON.stringify({ at: line.trim(), show, rule: rule?.rule ?? '', item: item?.id ?? '' }));
	}
	return 0;
}
