import { checkPassword } from './password';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{ name: 'checkPassword', samples: ['three gulls in a row'], read: (_, text) => checkPassword(text, 'keeper') }
] satisfies readonly FuzzedReader[];
