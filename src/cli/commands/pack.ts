import { readFileSync } from 'node:fs';
import { writers } from '$core/writers';
import { write } from '$core/engines/write';
import { packContent } from '$core/links/delivery/pack';
import { signedPack } from '$core/links/delivery/sign';
import { sentence } from '$core/basics/result';
import { readPlanFile, Refusal, writePacked } from '../files';
import { type Command, text, say, sayJson, need } from '../say';
import { oneWithoutStop } from '../endpoints';
import { broughtAlong } from '../cardSet';

/** Packs what an endpoint fetches: its pages, lists and media, under the names of their digests, with a manifest. */
export const pack: Command = async (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	const out = text(flags, 'out');
	if (!out) throw new Refusal('--out DIR is missing: the folder in which the set is to stand.');
	const [endpoint, context] = oneWithoutStop(workshop, flags, media);
	const { id, plan } = endpoint;
	if (!plan.delivery.used)
		throw new Refusal(`${id} fetches no content. Add Delivery to it, and write its card set once more.`);
	const files = write(writers, plan, context, await broughtAlong(endpoint, context, flags, media));
	const packed = packContent(files, {
		hostName: plan.network.hostName,
		number: Math.floor(Date.now() / 1000),
		era: plan.delivery.era
	});
	const { publicKey } = plan.delivery;
	const file = text(flags, 'sign-key');
	if (publicKey && !file) throw new Refusal(`${id} takes signed sets alone. Add --sign-key FILE, your private key.`);
	const entries = await signedPack(crypto.subtle, packed, publicKey, file ? readFileSync(file, 'utf8') : '');
	if (!entries.ok) throw new Refusal(`${file}: ${sentence(entries.faults)}`);
	writePacked(out, entries.value);
	const named = packed.files.map(({ path }) => path);
	if (flags.json) sayJson({ endpoint: id, dir: out, bytes: packed.bytes, signed: publicKey !== '', files: named });
	else
		say(`${id}: ${named.length} files, ${(packed.bytes / 1e6).toFixed(1)} MB, in ${out}${publicKey ? ', signed' : ''}`);
	return 0;
};
