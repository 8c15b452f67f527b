import { writeFileSync } from 'node:fs';
import { makeKeys } from '$core/links/delivery/sign';
import { type Command, say, sayJson, need } from '../say';

/** Makes a signing key: the private half as a file that only its owner reads, the public one to be put into the plan. */
export const key: Command = async (args, flags) => {
	const file = need(args, 'FILE');
	const { publicKey, privatePem } = await makeKeys(crypto.subtle);
	// One that is there may be what endpoints already believe: it is never written over.
	writeFileSync(file, privatePem, { mode: 0o600, flag: 'wx' });
	if (flags.json) sayJson({ file, publicKey });
	else
		say(
			`${publicKey}\n\nThat is the public half, for Delivery. The private one stands in ${file}: keep it, and a copy elsewhere.`
		);
	return 0;
};
