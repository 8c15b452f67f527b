import { join } from 'node:path';
import { judges } from '$core/judges';
import { assess } from '$core/engines/assess';
import { complain, readPlanFile, Refusal, writeCardFiles } from '../files';
import { type Command, text, say, sayJson, need } from '../say';
import { chosen, seenFrom } from '../endpoints';
import { cardSet } from '../cardSet';

export const writeCommand: Command = async (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	const out = text(flags, 'out');
	if (!out) throw new Refusal('--out DIR is missing: the folder in which the card set is to stand.');
	const endpoints = chosen(workshop, flags);
	let refused = 0;
	for (const endpoint of endpoints) {
		const context = seenFrom(workshop, endpoint, flags, media);
		const { findings, worst } = assess(judges, endpoint.plan, context);
		if (worst === 'stop' && !flags['even-so']) {
			complain(
				`${endpoint.id} is not written: ${findings
					.filter((f) => f.level === 'stop')
					.map((f) => f.title)
					.join('; ')}. Mend that first, or add --even-so.`
			);
			refused++;
			continue;
		}
		const dir = endpoints.length > 1 ? join(out, endpoint.id) : out;
		const files = await cardSet(endpoint, context, flags, media);
		writeCardFiles(dir, files);
		if (flags.json)
			sayJson({ endpoint: endpoint.id, dir, files: files.map(({ path, mode, why }) => ({ path, mode, why })) });
		else say(`${endpoint.id}: ${files.length} files in ${dir}`);
	}
	return refused ? 1 : 0;
};
