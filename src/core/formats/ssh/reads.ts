import { readPublicKey } from './publicKey';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readPublicKey',
		samples: ['ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIAsY+gk/mSXIbKws7gQl3MdINidjazRfiNwZNyr9AOFJ me@home'],
		read: (_, text) => readPublicKey(text)
	}
] satisfies readonly FuzzedReader[];
