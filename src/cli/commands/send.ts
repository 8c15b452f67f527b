import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPlanFile, writeCardFiles } from '../files';
import { sendSet } from '../send';
import { type Command, text, say, need } from '../say';
import { oneWithoutStop } from '../endpoints';
import { cardSet } from '../cardSet';

/** Sends the card set to a running endpoint, after showing what changes there. */
export const send: Command = async (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	const [endpoint, context] = oneWithoutStop(workshop, flags, media);
	const { network, card } = endpoint.plan;
	const dir = mkdtempSync(join(tmpdir(), 'yphos-set-'));
	try {
		writeCardFiles(dir, await cardSet(endpoint, context, flags, media));
		return await sendSet({
			dir,
			to: text(flags, 'to') ?? `${network.user}@${network.hostName}.local`,
			firstPartition: card.firstPartition,
			ssh: text(flags, 'ssh') ?? 'ssh',
			sure: flags.yes === true,
			say
		});
	} finally {
		rmSync(dir, { recursive: true });
	}
};
