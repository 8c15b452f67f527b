import { readMpvConf } from './conf';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readMpvConf',
		samples: ['audio-device=%6%🎵ab\nvolume="50" # x\nno-video\n[profile]\n'],
		read: (_, text) => readMpvConf(text)
	}
] satisfies readonly FuzzedReader[];
