import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { NoticesSettings } from './settings';

const feed = z.object({ address: z.string(), text: z.string() });

declare module '../../engines/machine/bench' {
	interface Bench {
		/** What stands at addresses from which feeds are fetched. */
		feeds: z.infer<typeof feed>[];
	}
}
/** What a rehearsal knows of feeds. */
export const noticesBenchShape = { feeds: z.array(feed).default([]) };

/** Each address gives what it gave when it was last looked at. */
export const noticesBench = ({ feeds }: NoticesSettings): Partial<Bench> => ({
	feeds: feeds.filter(({ address }) => address !== '').map(({ address, text }) => ({ address, text }))
});
