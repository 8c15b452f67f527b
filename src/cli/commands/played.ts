import { readFileSync } from 'node:fs';
import { countPlayed, playedCsv, readPlayed } from '$core/links/notices/kiosk/played';
import { sentence } from '$core/basics/result';
import { Refusal } from '../files';
import { type Command, say, sayJson, need } from '../say';

/** What a page has really shown, from its log: each thing, how often and how long, as CSV. */
export const played: Command = (args, flags) => {
	const path = need(args, 'FILE');
	const read = readPlayed(readFileSync(path === '-' ? 0 : path, 'utf8'));
	if (!read.ok) throw new Refusal(sentence(read.faults));
	if (flags.json) sayJson(read.value);
	else say(flags.each ? playedCsv(read.value).trimEnd() : countPlayed(read.value).trimEnd());
	return 0;
};
