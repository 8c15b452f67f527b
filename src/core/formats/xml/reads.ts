import { readXml } from './tree';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readXml',
		samples: ['<?xml version="1.0"?><a x="1"><!-- c --><b>t &lt; <![CDATA[x]]></b><c/></a>'],
		read: (_, text) => readXml(text)
	}
] satisfies readonly FuzzedReader[];
