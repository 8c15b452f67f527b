import { readUserData } from './userData';
import { readNetworkConfig } from './networkConfig';
import { parse } from 'yaml';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readUserData',
		samples: [
			'#cloud-config\ntimezone: "Atlantic/Faroe"\nruncmd:\n  - [bash, "/boot/firmware/yphos/apply.sh"]\n  - echo x\nusers:\n  - name: "a"\n    sudo: "ALL=(ALL) ALL"\n'
		],
		read: (_, text) => readUserData(text)
	},
	{
		name: 'readNetworkConfig',
		samples: ['version: 2\nethernets:\n  cable:\n    match: {name: "e*"}\n    dhcp4: true\n'],
		read: (_, text) => readNetworkConfig(text, parse)
	}
] satisfies readonly FuzzedReader[];
