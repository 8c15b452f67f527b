import type { Words } from '../../engines/machine';

/** The sources' events in words, by code. */
export const SOURCES_WORDS = {
	refuses: () => 'The stream server refuses from now on',
	answers: () => 'The stream server answers again'
} as const satisfies Words;
