import { z } from 'zod';
import { lineText } from '../../plan/text';

export const sourceItem = z.object({
	id: z.string().min(1),
	/** An address (http://…), a file that goes on the card (any name), or an absolute path on the endpoint (/srv/…). */
	location: lineText(2000).min(1, 'Give an address or a file name.'),
	title: lineText(300),
	durationSec: z.number().int().positive().nullable(),
	/** Lines of the imported list that Yphos does not interpret and writes back as they were. */
	extra: z.array(lineText(2000))
});
export type SourceItem = z.infer<typeof sourceItem>;

export const sourcesSettings = z.object({
	listTitle: lineText(200),
	/** Uninterpreted head lines of the imported list. */
	header: z.array(lineText(2000)),
	items: z.array(sourceItem).max(10_000),
	/** Streams need the network: wait for it before playing, or begin with what is on the card. */
	waitForNetwork: z.boolean()
});
export type SourcesSettings = z.infer<typeof sourcesSettings>;
