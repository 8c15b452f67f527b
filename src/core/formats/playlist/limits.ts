/** What a list of ours holds at most. Readers cut or leave out what is beyond, and say so; the plan's schema refuses it. */
export const LIST_LIMITS = {
	/** Characters of an address or a path. */
	location: 2000,
	/** Characters of a title. */
	title: 300,
	/** Characters of a line that we do not interpret. */
	line: 2000,
	linesPerEntry: 50,
	headerLines: 200,
	entries: 10_000,
	/** Seconds: a year. */
	durationSec: 31_622_400,
	/** Bytes of a list's file. */
	fileBytes: 16_000_000
} as const;
