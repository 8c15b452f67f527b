import { readCidr, readAddress } from './cidr';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{ name: 'readCidr', samples: ['192.168.40.0/24', '2001:db8::/32'], read: (_, text) => readCidr(text) },
	{ name: 'readAddress', samples: ['192.168.40.7', '::ffff:1.2.3.4'], read: (_, text) => readAddress(text) }
] satisfies readonly FuzzedReader[];
