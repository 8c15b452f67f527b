import { readAlsaConf } from './conf';
import { readControlWord } from './controlName';
import { readDeviceName } from './deviceName';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readAlsaConf',
		samples: ['pcm.!default {\n\ttype plug\n\tslave.pcm "hw:CARD=Field24,DEV=0"\n}\n'],
		read: (_, text) => readAlsaConf(text)
	},
	{
		name: 'readControlWord',
		samples: ["'PCM',1", 'Master'],
		read: (_, text) => readControlWord(text)
	},
	{
		name: 'readDeviceName',
		samples: ['hw:CARD=Field24,DEV=0', 'iec958:CARD=X,AES0=0x4'],
		read: (_, text) => readDeviceName(text)
	}
] satisfies readonly FuzzedReader[];
