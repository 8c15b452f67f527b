/** SHA-256 of files, one after the other, read piece by piece. */
import { expose } from 'comlink';
import { createSHA256 } from 'hash-wasm';

const worker = {
	async sha256(file: Blob): Promise<string> {
		const hasher = await createSHA256();
		const reader = file.stream().getReader();
		for (;;) {
			const { done, value } = await reader.read();
			if (done) return hasher.digest('hex');
			hasher.update(value);
		}
	}
};
export type DigestWorker = typeof worker;
expose(worker);
