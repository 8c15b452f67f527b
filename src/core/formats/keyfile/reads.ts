import { readKeyfile } from './keyfile';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readKeyfile',
		samples: ['[connection]\nid=a\\sb\n[wifi]\nssid=72;105;\n[__proto__]\nx=1\n'],
		read: (_, text) => readKeyfile(text)
	}
] satisfies readonly FuzzedReader[];
