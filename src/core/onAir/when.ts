import { z } from 'zod';
import { idText, lineText, timeOfDay, uniqueList } from '../basics/text';
import { dateText, seasonSchema } from '../basics/dates';
import { WEEKDAYS } from '../basics/weekdays';

/** A time of a day: by the clock, by the venue's opening hours, or by the sun, so many minutes before or after. */
const moment = z.object({
	at: z.enum(['clock', 'opens', 'closes', 'sunrise', 'sunset']),
	/** By the clock only. */
	time: timeOfDay,
	/** Not by the clock: minutes after it; before it where negative. */
	offsetMin: z.number().int().min(-720).max(720)
});
/** A time of a day. */
export type Moment = z.infer<typeof moment>;

/** The schema of one rule: what is on, and when. Of rules that hold at once the upper one wins. */
export const programmeRule = z.object({
	id: idText,
	title: lineText(80),
	/** A playlist's id; "all": everything that is listed; "rest": nothing plays. */
	show: z.union([z.literal('all'), z.literal('rest'), idText]),
	/** No day means every day. */
	weekdays: z.array(z.enum(WEEKDAYS)).max(7),
	/** Of its weekday in the month: 1 the first, -1 the last; 0: each. */
	nth: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5), z.literal(-1)]),
	/** Every other week: a date in a week in which it holds; "": every week. */
	everyOther: z.union([z.literal(''), dateText]),
	season: seasonSchema.nullable(),
	/** First and last day on which it holds at all; "": without end. */
	validFrom: z.union([z.literal(''), dateText]),
	validUntil: z.union([z.literal(''), dateText]),
	/** On these days alone; none: whichever the other conditions say. */
	dates: z.array(dateText).max(100),
	holidays: z.enum(['too', 'only', 'never']),
	from: moment,
	/** At or before `from`: it ends the next morning. */
	until: moment,
	/** Not all the while, but again and again for so long; null: all the while. */
	each: z.object({ everyMin: z.number().int().min(2).max(720), forMin: z.number().int().min(1).max(719) }).nullable(),
	/** So much softer than otherwise, dB; 0: as loud. */
	quieterDb: z.number().min(0).max(60)
});
/** One rule. */
export type ProgrammeRule = z.infer<typeof programmeRule>;

/** Words that stand for something else where a playlist is named: on the card, and in what is said. */
const TAKEN: readonly string[] = ['all', 'rest', 'otherwise', 'quiet', 'off'];

/** The schema of a playlist of its own: some entries of the sources. */
export const programmeList = z.object({
	id: idText.refine((id) => !TAKEN.includes(id), 'This word stands for something else here.'),
	title: lineText(80),
	/** Ids of entries of the sources, in order; the same one may come again. */
	items: z.array(idText).max(1000),
	/** How often an entry is to come, and beside which others never. */
	wishes: uniqueList(
		z.object({
			item: idText,
			perHour: z.number().int().min(1).max(360).nullable(),
			percent: z.number().int().min(1).max(100).nullable(),
			apartFrom: z.array(idText).max(20)
		}),
		50,
		({ item }) => item,
		'That entry has its wishes already.'
	),
	/** Entries that are on from one day to another only; "": without beginning or end. */
	valid: uniqueList(
		z.object({
			item: idText,
			from: z.union([z.literal(''), dateText]),
			until: z.union([z.literal(''), dateText])
		}),
		200,
		({ item }) => item,
		'That entry has its days already.'
	)
});
/** A playlist of its own. */
export type ProgrammeList = z.infer<typeof programmeList>;

/** What a new playlist begins with. */
export const newList = (id: string, title: string): ProgrammeList => ({ id, title, items: [], wishes: [], valid: [] });

/** Rules and playlists as the plan keeps them. */
export const rulesShape = {
	lists: uniqueList(programmeList, 50, ({ id }) => id, 'Another playlist has the same id.'),
	/** The upper one wins. */
	rules: uniqueList(programmeRule, 300, ({ id }) => id, 'Another rule has the same id.'),
	/** What is on while no rule holds. */
	otherwise: z.enum(['all', 'rest'])
};

/** The schema of one spell of quiet. */
export const quietHours = z.object({
	/** The evening on which it begins; no day means every day. */
	weekdays: z.array(z.enum(WEEKDAYS)).max(7),
	from: timeOfDay,
	/** May be earlier than `from`: then it ends the next morning. */
	until: timeOfDay
});
/** One spell of quiet, by the weekday on which it begins. */
export type QuietHours = z.infer<typeof quietHours>;

/** What decides when an endpoint plays, and what. */
export interface Timetable extends Readonly<z.infer<z.ZodObject<typeof rulesShape>>> {
	/** Off: nothing is played by itself. */
	readonly used: boolean;
	readonly startAtBoot: boolean;
	readonly shuffle: boolean;
	readonly quiet: readonly QuietHours[];
}

const CLOCK = (time: string): Moment => ({ at: 'clock', time, offsetMin: 0 });

/** What a new rule begins with: all day from nine to five. */
export const newRule = (id: string, show: ProgrammeRule['show'], title = ''): ProgrammeRule => ({
	id,
	title,
	show,
	weekdays: [],
	nth: 0,
	everyOther: '',
	season: null,
	validFrom: '',
	validUntil: '',
	dates: [],
	holidays: 'too',
	from: CLOCK('09:00'),
	until: CLOCK('17:00'),
	each: null,
	quieterDb: 0
});
