import { openAsBlob } from 'node:fs';
import { mediaWords } from '$core/parts/mediaWords';
import { type Command, say, sayJson, need } from '../say';

/** What files say of themselves, as the app reads them; loudness is decoded in a browser alone. */
export const look: Command = async (args, flags) => {
	need(args, 'FILE');
	// Only who asks for it waits for the media library to load.
	const { lookAt } = await import('$lib/media/look');
	const all: { file: string; facts: unknown }[] = [];
	for (const file of args) {
		const blob = await openAsBlob(file);
		const looked = await lookAt(blob).catch(() => null);
		all.push({ file, facts: looked?.facts ?? null });
		if (flags.json) continue;
		say(`${file}${looked ? '' : ': it is in no format that is read here; ffprobe may know it'}`);
		if (!looked) continue;
		for (const [name, words] of mediaWords({ ...looked.facts, sizeBytes: blob.size, bitRateBps: null }))
			say(`  ${name.padEnd(10)}${words}`);
		for (const { startMs, title } of looked.facts.details?.chapters ?? [])
			say(`  ${new Date(startMs).toISOString().slice(11, 19).padEnd(10)}${title}`);
	}
	if (flags.json) sayJson(all);
	return all.every(({ facts }) => facts) ? 0 : 1;
};
