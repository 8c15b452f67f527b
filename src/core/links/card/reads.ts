import { readManifest } from './send';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readManifest',
		samples: [
			'{"yphos":"card set","files":[{"path":"verify.sh","sha256":"e591b0d4","size":2332,"mode":"0755","owner":"root:root","why":"Reads only."}]}'
		],
		read: (_, text) => readManifest(text)
	}
] satisfies readonly FuzzedReader[];
