/** SHA-256 of a file in hexadecimal, read piece by piece so that the page goes on; null when it was given up. */
export async function sha256Of(file: Blob, signal?: AbortSignal): Promise<string | null> {
	const { createSHA256 } = await import('hash-wasm');
	const hasher = await createSHA256();
	const reader = file.stream().getReader();
	for (;;) {
		const { done, value } = await reader.read();
		if (done) return hasher.digest('hex');
		if (signal?.aborted) {
			await reader.cancel();
			return null;
		}
		hasher.update(value);
	}
}
