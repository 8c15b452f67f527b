import { readFileSync } from 'node:fs';
import { readDisks } from '$core/disks/read';
import { judgeDisks } from '$core/disks/verdict';
import { sentence } from '$core/basics/result';
import { Refusal } from '../files';
import { type Command, text, say, sayJson } from '../say';

export const disks: Command = (args, flags) => {
	const read = readDisks(readFileSync(args[0] === undefined || args[0] === '-' ? 0 : args[0], 'utf8'));
	if (!read.ok) throw new Refusal(sentence(read.faults));
	const gb = text(flags, 'card-gb');
	const verdicts = judgeDisks(read.value.disks, { imageBytes: null, cardGb: gb === undefined ? null : Number(gb) });
	if (flags.json) sayJson(verdicts);
	else
		for (const { disk, verdict, reasons } of verdicts)
			say(`${verdict.padEnd(6)} ${disk.id.padEnd(14)} ${reasons.join('; ')}`);
	return verdicts.some(({ verdict }) => verdict === 'card') ? 0 : 1;
};
