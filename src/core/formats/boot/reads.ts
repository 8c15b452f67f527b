import { readVideoArgument } from './kernelLine';
import { addToExtlinux, addKernelArgs } from './kernelArgs';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readVideoArgument',
		samples: [
			'video=HDMI-A-1:1920x1080M@50iD,margin_left=4,rotate=90',
			'video=1280x720',
			'video=HDMI-A-1:D,margin_top=3'
		],
		read: (_, text) => readVideoArgument(text)
	},
	{
		name: 'addToExtlinux',
		samples: ['label a\r\n\tlinux /x\r\n\tappend root=/dev/x "a b"\r\n'],
		read: (_, text) => addToExtlinux(text, ['quiet'])
	},
	{
		name: 'addKernelArgs',
		samples: ['root=/dev/x "a b" quiet'],
		read: (_, text) => addKernelArgs(text, ['quiet'])
	}
] satisfies readonly FuzzedReader[];
