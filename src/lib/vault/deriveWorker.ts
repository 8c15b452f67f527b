/** Derives the vault's key beside the page, which stays usable meanwhile. */
import { argon2id } from 'hash-wasm';
import { ARGON2ID } from './vault';

onmessage = ({ data }: MessageEvent<{ phrase: string; salt: Uint8Array }>) => {
	void argon2id({
		password: data.phrase,
		salt: data.salt,
		memorySize: ARGON2ID.memoryKib,
		iterations: ARGON2ID.passes,
		parallelism: ARGON2ID.lanes,
		hashLength: ARGON2ID.bytes,
		outputType: 'binary'
	}).then((key) => postMessage(key));
};
