import { readJson } from './json';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{ name: 'readJson', samples: ['{"a":[1,{"b":"c\\n\\u0041"}],"d":null}'], read: (_, text) => readJson(text) }
] satisfies readonly FuzzedReader[];
