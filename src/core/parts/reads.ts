import { readPartsFile } from './file';
import { type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readPartsFile',
		samples: [
			'{"yphos":"parts","version":1,"parts":[{"kind":"card","id":"c","name":"Card","sure":"typical","price":9,"capacityGb":32,"writeMbs":20,"readMbs":80,"enduranceTb":null}]}'
		],
		read: (_, text) => readPartsFile(text)
	}
] satisfies readonly FuzzedReader[];
