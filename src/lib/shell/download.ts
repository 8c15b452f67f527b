/** Hands the person a file. */
export function download(name: string, content: string | Uint8Array | Blob, type = 'application/octet-stream'): void {
	const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
	const link = document.createElement('a');
	link.href = url;
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A file name that every system takes. */
export const safeName = (text: string): string =>
	text
		.toLowerCase()
		.replace(/[^\p{L}\p{N}]+/gu, '-')
		.replace(/^-|-$/g, '') || 'yphos';
