import { readProbe, probeFactsSchema } from '.';
import { promised, file, type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readProbe',
		samples: [
			file('probe/fixtures/emulated.txt'),
			'user@board:~ $ aplay -l\ncard 0: Id [Name], device 0: PCM [PCM]\n',
			"Simple mixer control 'PCM',1\n  Capabilities: pvolume\n  Front Left: Playback 1 [2%] [-30.00dB]\n"
		],
		read(_, text) {
			const read = readProbe(text);
			if (read.ok) promised(probeFactsSchema.safeParse(read.value.facts).success, 'the facts fit their schema');
		}
	}
] satisfies readonly FuzzedReader[];
