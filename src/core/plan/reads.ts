import { openWorkshop } from './open';
import { file, type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'openWorkshop',
		samples: [2, 3, 4, 5].map((n) => file(`plan/fixtures/version-${n}.json`)),
		read: (_, text) => openWorkshop(text, 'UTC')
	}
] satisfies readonly FuzzedReader[];
