import { z } from 'zod';
import { LIST_LIMITS } from '../../formats/playlist/limits';
import { chooseAtSchema, ruleSchema } from './lists/rules';
import { storeSchema } from './stores/stores';
import { idText, lineText, uniqueList } from '../../basics/text';

/** A line that a player takes for a comment; anything else would become an entry that nobody sees. */
const commentLine = lineText(LIST_LIMITS.line).refine(
	(line) => line.startsWith('#'),
	'A line of this kind begins with #.'
);

/** More is silence. */
export const MOST_QUIETER_DB = 40;
const seconds = z.number().min(0).max(LIST_LIMITS.durationSec);
/** What of an entry is played, and how loud. */
const partSchema = z
	.object({
		fromSec: seconds,
		/** null: to its end. Of a still picture: how long it stands. */
		untilSec: seconds.nullable(),
		/** So much softer than it is, dB. */
		quieterDb: z.number().min(0).max(MOST_QUIETER_DB)
	})
	.refine(({ fromSec, untilSec }) => untilSec === null || untilSec > fromSec, 'It ends before it begins.');

/** The schema of one entry of the list. */
export const sourceItem = z.object({
	id: idText,
	/** An address (http://…), a file that goes on the card (any name), or an absolute path on the endpoint (/srv/…). */
	location: lineText(LIST_LIMITS.location).min(1, 'Give an address or a file name.'),
	title: lineText(LIST_LIMITS.title),
	durationSec: z.number().int().positive().max(LIST_LIMITS.durationSec).nullable(),
	/** Lines of the imported list that Yphos does not interpret and writes back as they were. */
	extra: z.array(commentLine).max(LIST_LIMITS.linesPerEntry),
	/** null: all of it, as loud as it is. */
	part: partSchema.nullable()
});
/** One entry of the list. */
export type SourceItem = z.infer<typeof sourceItem>;

/** The schema of the sources' slice of a plan. */
export const sourcesSettings = z.object({
	/** Off: this endpoint plays no list. */
	used: z.boolean(),
	listTitle: lineText(200),
	/** Uninterpreted head lines of the imported list. */
	header: z.array(commentLine).max(LIST_LIMITS.headerLines),
	items: uniqueList(sourceItem, LIST_LIMITS.entries, ({ id }) => id, 'Another entry has the same id.'),
	/** Streams need the network: wait for it before playing, or begin with what is on the card. */
	waitForNetwork: z.boolean(),
	/** So much of a stream is gathered before it begins, s; 0: it begins at once. */
	bufferSec: z.number().min(0).max(60),
	/** How often streams stand still here, as somebody measured it; null: as is usual of the endpoint’s way. */
	pauses: z.object({ perHour: z.number().min(0).max(3600), meanSec: z.number().min(0.01).max(60) }).nullable(),
	/** Shares and sticks that are mounted: what lies on them is listed by its path. */
	stores: uniqueList(storeSchema, 8, ({ name }) => name, 'Another share or stick has that folder.'),
	/** Rules by which the endpoint itself chooses from folders. */
	rules: uniqueList(ruleSchema, 8, ({ id }) => id, 'Another rule has the same id.'),
	/** When it does, besides at its start. */
	chooseAt: chooseAtSchema,
	/** Files whose bytes the app has go to the endpoint in the card set, or the person copies them. */
	carry: z.enum(['set', 'self'])
});
/** The sources' slice of a plan. */
export type SourcesSettings = z.infer<typeof sourcesSettings>;
