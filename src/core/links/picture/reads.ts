import { readRate } from './modes/cadence';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{ name: 'readRate', samples: ['23.976', '25', '59.94'], read: (_, text) => readRate(text) }
] satisfies readonly FuzzedReader[];
