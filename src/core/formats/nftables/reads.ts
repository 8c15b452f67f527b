import { readNftables, writeNftables } from './nftables';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readNftables',
		samples: [
			writeNftables([{ port: 22, protocol: 'tcp' }], ['192.168.40.0/24', 'fd00::/8'])
				.map((line) => line.text)
				.join('\n')
		],
		read: (_, text) => readNftables(text)
	}
] satisfies readonly FuzzedReader[];
