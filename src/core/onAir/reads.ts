import { readSunTable } from './sun';
import { type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readSunTable',
		samples: ['1 1/595/915 3/590/920\n2 1/540/990\n'],
		read: (_, text) => readSunTable(text)
	}
] satisfies readonly FuzzedReader[];
