import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainHatchWorkshop as demoWorkshop } from '../../../../../demo/plainHatch';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree, type CardTree } from '../../../engines/machine';
import { rehearse, type PlannedFault } from '../../../engines/rehearse';
import { runSheet } from '../../../engines/runSheet';
import { inWords } from '../../../engines/say';
import { speaking } from '../../../speaking';
import { write } from '../../../engines/write';
import { nextElapses, readCalendar } from '../../../formats/systemd/calendar';
import { wallClockMs } from '../../../formats/systemd/zone';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { readHolidays } from '../../../formats/holidays';
import { calendarOf } from './calendar';
import { onAirAt, resolve } from '../../../onAir/onAir';
import { changeTimes } from './onAirFiles';
import { readRuleLine, writeRuleLine } from './ruleText';
import { movedBy, stretchedBy } from './ruleEdits';
import { instantOfClock, nextClockChange, slices, startOfDayMs } from '../../../onAir/slices';
import { readSunTable, sunTable, writeSunTable } from '../../../onAir/sun';
import { programmeBook } from '../../../onAir/book';
import { becauseWords, showWords, whatsOn } from './whatsOn';
import { newRule, programmeList, type Moment, type ProgrammeRule } from '../../../onAir/when';
import { airtime } from './year';

const ID = 'ticket-hatch';
const hatch = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(chain, demoWorkshop, ID);
const clock = (time: string): Moment => ({ at: 'clock', time, offsetMin: 0 });
const planWith = (rules: ProgrammeRule[], change: Partial<Plan['programme']> = {}): Plan => ({
	...hatch,
	programme: { ...hatch.programme, rules, ...change }
});
const cardOf = (plan: Plan): CardTree => cardTree(write(writers, plan, context, {}));
function run(card: CardTree, at: string, forMs: number, faults: PlannedFault[] = []) {
	const result = rehearse({
		links: rehearsed,
		card,
		bench: benchFor(writers, hatch, context),
		startUtcMs: Date.parse(at),
		forMs,
		faults
	});
	const told = inWords(speaking, result.events);
	return {
		texts: told.map(({ text }) => text).join('\n'),
		/** What is on from when, in seconds. */
		on: told
			.filter(({ text }) => /^(?:On now|Nothing is on)/.test(text))
			.map(({ atMs, text, reading }) => [Math.round(atMs / 1000), text, reading])
	};
}
const damaged = (card: CardTree, path: string, edit: (text: string) => string): CardTree => {
	const tree = new Map(card);
	const full = `boot/yphos/root${path}`;
	const apply = tree.get('boot/yphos/apply.sh')!;
	tree.set(full, { ...tree.get(full)!, text: edit(tree.get(full)!.text) });
	tree.set('boot/yphos/apply.sh', {
		...apply,
		text: apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
	});
	return tree;
};

describe('the time, with a root that forgets', () => {
	const plan = planWith(hatch.programme.rules.slice(0, 1));
	const overlay: Plan = { ...plan, card: { ...plan.card, root: 'overlay' } };
	const found = (of: Plan) =>
		assess(judges, of, context).findings.find(({ id }) => id === 'programme.clock-forgotten') ?? null;
	it('is said to be that of the day of setting up, and each fix cures that', () => {
		expect(found(plan)).toBeNull();
		const { fixes } = found(overlay)!;
		expect(fixes).toHaveLength(2);
		for (const { apply, label } of fixes) expect(found(apply(overlay)), label).toBeNull();
	});
});

describe('rules on the card, rehearsed', () => {
	const card = cardOf(hatch);
	const HOUR = 3_600_000;
	it('turn to another list at their minute and back again', () =>
		expect(run(card, '2026-11-27T16:00:00Z', 2 * HOUR).on).toEqual([
			[11, 'On now: At the hatch', 'no rule holds'],
			[1800, 'On now: Ferry and steps', 'rule: Before the ferry'],
			[4800, 'On now: At the hatch', 'no rule holds']
		]));
	it('say what the resolver says, for two days and two nights', () => {
		const start = Date.parse('2026-11-28T00:00:00Z');
		const book = programmeBook(hatch.programme, context.venue);
		const { on } = run(card, '2026-11-28T00:00:00Z', 48 * HOUR);
		const told = resolve(book, start, start + 48 * HOUR).map((stretch) => [
			Math.round((stretch.fromUtcMs - start) / 1000),
			showWords(stretch.show, hatch.programme, hatch.sources.listTitle)
		]);
		expect(on.slice(1).map(([sec, text]) => [sec, String(text).replace('On now: ', '')])).toEqual(told.slice(1));
	});
	it('come up with what is on after a power cut', () =>
		expect(
			run(card, '2026-11-27T16:20:00Z', HOUR, [{ name: 'power-cut', atMs: 900_000, lastsMs: 60_000 }]).on.map(
				([, text]) => text
			)
		).toEqual(['On now: At the hatch', 'On now: Ferry and steps']));
	it('are asked for on the endpoint, and watched once', () => {
		const steps = runSheet(writers, hatch, context).flatMap(({ steps: some }) => some);
		expect(steps.find(({ id }) => id.endsWith('rules-check'))?.command).toBe(
			'cat /var/lib/yphos-on-air/why /var/lib/yphos-on-air/now.m3u8'
		);
		expect(steps.find(({ id }) => id.endsWith('rules-live'))?.do).toContain('“Before the ferry” from 16:30');
		expect(cardOf(hatch).get('boot/yphos/verify.sh')!.text).toContain('test -s /var/lib/yphos-on-air/now.m3u8');
	});
	it('leave the screen without a player while nothing is on', () => {
		const { texts, on } = run(
			cardOf(planWith([{ ...newRule('a', 'rest', 'Noon'), from: clock('12:00'), until: clock('12:10') }])),
			'2026-11-27T11:58:00Z',
			900_000
		);
		expect(on.map(([, text]) => text)).toEqual(['On now: At the hatch', 'Nothing is on now', 'On now: At the hatch']);
		expect(texts).not.toContain('Quiet hours');
	});
	it.each([
		['a list that is not there', '/opt/yphos/list-ferry.m3u8', () => '', /the playlist is empty|none of|list/],
		[
			'a rule without its times',
			'/opt/yphos/programme/rules.txt',
			(text: string) => text.replace('from=990 ', ''),
			/without its times/
		],
		[
			'a script that is another',
			'/opt/yphos/bin/on-air.sh',
			(text: string) => text.replace('1440', '1441'),
			/not as it was written/
		],
		[
			'a timer that never comes',
			'/etc/systemd/system/yphos-on-air.timer',
			(text: string) => text.replaceAll('*-*-*', '2020-01-01'),
			/^(?![^]*Ferry and steps)/
		]
	])('%s is told', (_, path, edit, said) =>
		expect(run(damaged(card, path, edit), '2026-11-27T16:00:00Z', HOUR).texts).toMatch(said)
	);
});

describe('the timer', () => {
	it('goes off whenever something else may be on, over both changes of the clock', () => {
		const at = fc.constantFrom<Moment['at']>('clock', 'opens', 'closes', 'sunrise', 'sunset');
		const moment = fc.record({
			at,
			time: fc.integer({ min: 0, max: 95 }).map((n) => new Date(n * 900_000).toISOString().slice(11, 16)),
			offsetMin: fc.integer({ min: -40, max: 40 })
		});
		fc.assert(
			fc.property(
				fc.array(fc.tuple(moment, moment), { minLength: 1, maxLength: 3 }),
				fc.constantFrom('03-27', '10-23', '06-10'),
				(times, day) => {
					const rules = times.map(([from, until], n) => ({ ...newRule(`r${n}`, 'rest'), from, until }));
					const book = programmeBook(planWith(rules).programme, { ...context.venue, timeZone: 'Europe/Oslo' });
					const calendars = changeTimes(book).map((text) => {
						const read = readCalendar(text);
						if (!read.ok) throw new Error(text);
						return read.value;
					});
					const start = Date.parse(`2026-${day}T22:00:00Z`);
					for (const { fromUtcMs } of resolve(book, start, start + 3 * 86_400_000).slice(1))
						expect(
							calendars.some((rule) => nextElapses(rule, book.zone, fromUtcMs - 1000, 1)[0] === fromUtcMs),
							new Date(fromUtcMs).toISOString()
						).toBe(true);
				}
			),
			{ numRuns: 40 }
		);
	});
});

describe('a year', () => {
	const from = Date.UTC(2026, 10, 27);
	const until = from + 365 * 86_400_000;
	it('adds up to itself, and names the rule that never has its turn', () => {
		const found = airtime(programmeBook(hatch.programme, context.venue), hatch.programme.rules, from, until);
		expect(found.byShow.reduce((sum, { ms }) => sum + ms, 0)).toBe(until - from);
		expect(found.never).toEqual([{ rule: 'tour', behind: null }]);
	});
	it('names what goes before a rule that would hold', () => {
		const rules = [
			newRule('long', 'all'),
			{ ...newRule('short', 'rest'), from: clock('10:00'), until: clock('11:00') }
		];
		const plan = planWith(rules);
		expect(airtime(programmeBook(plan.programme, context.venue), rules, from, until).never).toEqual([
			{ rule: 'short', behind: 'long' }
		]);
		const quiet = planWith(rules.slice(1), { quiet: [{ weekdays: [], from: '09:00', until: '12:00' }] });
		expect(airtime(programmeBook(quiet.programme, context.venue), rules.slice(1), from, until).never).toEqual([
			{ rule: 'short', behind: 'quiet-0' }
		]);
	});
	it('says what is on and until when, quiet hours first', () => {
		const plan = planWith([], { quiet: [{ weekdays: [], from: '22:00', until: '07:00' }] });
		const book = programmeBook(plan.programme, context.venue);
		const on = whatsOn(book, Date.parse('2026-11-27T23:00:00Z'));
		expect([on.show, becauseWords(on, book), on.untilUtcMs]).toEqual([
			'quiet',
			'quiet hours',
			Date.parse('2026-11-28T07:00:00Z')
		]);
		const off = programmeBook({ ...plan.programme, startAtBoot: false }, context.venue);
		expect(becauseWords(whatsOn(off, 0), off)).toBe('nothing starts it');
	});
	it('is drawn day by day without a gap, and finds the next change of the clock', () => {
		const book = programmeBook(hatch.programme, context.venue);
		const drawn = slices(book, 20_780, 91);
		for (let day = 0; day < 91; day++) {
			const of = drawn.filter((slice) => slice.day === day);
			expect(of[0]!.fromMin).toBe(0);
			expect(of.at(-1)!.untilMin).toBe(1440);
		}
		const change = nextClockChange('Europe/Oslo', Date.UTC(2026, 10, 27))!;
		expect([new Date(change.utcMs).toISOString(), change.byMin]).toEqual(['2027-03-28T01:00:00.000Z', 60]);
		expect(nextClockChange('UTC', 0)).toBeNull();
		const at = (text: string) => new Date(instantOfClock('Europe/Oslo', text)!).toISOString().slice(0, 16);
		expect([at('2026-11-27T16:45'), at('2026-10-25T02:30'), at('2026-03-29T02:30')]).toEqual([
			'2026-11-27T15:45',
			'2026-10-25T00:30',
			'2026-03-29T01:30'
		]);
		expect(instantOfClock('Europe/Oslo', 'soon')).toBeNull();
		expect(wallClockMs('America/Santiago', startOfDayMs('America/Santiago', 20_702)) % 86_400_000).toBe(3_600_000);
	});
});

describe('a playlist that is longer than its rule', () => {
	const rules = [{ ...newRule('r', 'l', 'Minute'), from: clock('09:00'), until: clock('09:01') }];
	const lists = [{ id: 'l', title: 'Long', items: Array<string>(40).fill('s1'), wishes: [], valid: [] }];
	const ids = (change: Partial<Plan['programme']>): string[] =>
		assess(judges, planWith(rules, { lists, ...change }), context).findings.map(({ id }) => id);
	it('misses its end, unless it is shuffled or only its first entry plays', () => {
		expect(ids({})).toContain('programme.rule-short-r');
		expect(ids({ shuffle: true })).not.toContain('programme.rule-short-r');
		expect(ids({ loop: 'one' })).not.toContain('programme.rule-short-r');
	});
});

describe('rules by hand', () => {
	it.each(['all', 'rest', 'otherwise', 'quiet', 'off', '../x'])('no playlist is called %s', (id) =>
		expect(programmeList.safeParse({ id, title: '', items: [], wishes: [], valid: [] }).success).toBe(false)
	);
	it('move and stretch round midnight and to nothing never', () => {
		const rule = { ...newRule('a', 'all'), from: clock('23:50'), until: clock('00:05') };
		expect(movedBy(rule, 15)).toMatchObject({ from: clock('00:05'), until: clock('00:20') });
		expect(stretchedBy(rule, -15)).toBe(rule);
		expect(stretchedBy({ ...rule, until: { at: 'sunset', time: '00:00', offsetMin: 715 } }, 30).until.offsetMin).toBe(
			720
		);
	});
	it('rules and sun come back from their files', () => {
		for (const line of programmeBook(hatch.programme, context.venue).lines)
			expect(readRuleLine(writeRuleLine(line))).toEqual({ ...line, rule: line.title, volume: '' });
		const table = sunTable({ latitudeDeg: 62, longitudeDeg: -7 });
		const back = readSunTable(writeSunTable(table).join('\n'));
		for (const row of table) expect(back).toContainEqual(row);
	});
	it('leave as a calendar that its own reader takes, without quiet and nothing', () => {
		const text = calendarOf(
			[
				{
					id: ID,
					name: 'Hatch; upper, floor',
					book: programmeBook(hatch.programme, context.venue),
					words: (show) => show
				}
			],
			Date.parse('2026-11-27T00:00:00Z'),
			Date.parse('2026-11-28T00:00:00Z'),
			0
		);
		expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(3);
		expect(text).toContain('DTSTART:20261127T163000Z');
		expect(text).toContain('SUMMARY:Hatch\\; upper\\, floor: ferry');
		expect(readHolidays(text, 2026)).toMatchObject({ ok: false });
	});
	it('holidays are read with those that come each year and those of two days', () => {
		const event = (...texts: string[]) => ['BEGIN:VEVENT', 'UID:x', ...texts, 'END:VEVENT'].join('\r\n');
		const read = readHolidays(
			[
				'BEGIN:VCALENDAR',
				event('DTSTART;VALUE=DATE:20201225', 'DTEND;VALUE=DATE:20201227', 'RRULE:FREQ=YEARLY', 'SUMMARY:Christmas'),
				event('DTSTART;VALUE=DATE:20270501', 'SUMMARY:May\\, the first'),
				event('DTSTART:20270502T090000Z', 'SUMMARY:Not a day'),
				event('DTSTART;VALUE=DATE:20260230', 'RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', 'SUMMARY:Never'),
				'END:VCALENDAR',
				''
			].join('\r\n'),
			2026
		);
		expect(read.ok && read.value.slice(0, 3)).toEqual([
			{ date: '2026-12-25', title: 'Christmas' },
			{ date: '2026-12-26', title: 'Christmas' },
			{ date: '2027-05-01', title: 'May, the first' }
		]);
		expect(readHolidays('no calendar', 2026)).toMatchObject({ ok: false, faults: [{ code: 'holidays-unread' }] });
	});
	it('any instant of the card’s week is the one the page shows', () => {
		const book = programmeBook(hatch.programme, context.venue);
		for (const slice of slices(book, 20_784, 7))
			expect(onAirAt(book, slice.fromUtcMs).line?.rule).toBe(slice.on.line?.rule);
	});
});
