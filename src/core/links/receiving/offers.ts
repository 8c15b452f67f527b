import type { Way } from './ways';

declare module '../../facts' {
	interface Facts {
		/** What others may send to it; absent: nothing. `name`: "" is the endpoint's own. */
		readonly receiving?: {
			readonly name: string;
			readonly ways: readonly Way[];
			readonly bufferMs: number;
			/** Quiet hours silence it too. */
			readonly quietToo: boolean;
		};
	}
}
