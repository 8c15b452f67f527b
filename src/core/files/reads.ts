import { readByHand } from './byHand';
import { isId } from '../basics/text';
import { promised, type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readByHand',
		samples: ['page-tides 1795777825\n', 'none 0\n'],
		read(_, text) {
			const read = readByHand(text);
			promised(read === null || (isId(read.id) && read.untilUtcMs > 0), 'what is asked for has a name and an end');
		}
	}
] satisfies readonly FuzzedReader[];
