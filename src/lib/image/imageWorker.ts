/** Reads an image once, piece by piece: its digests, and what is in it. Never more than a few pieces are in memory. */
import '$lib/plainZod';
import { createMD5, createSHA1, createSHA256, createSHA512, type IHasher } from 'hash-wasm';
import type { DigestKind } from '$core/image/digest';
import { sniffForm } from '$core/image/form';
import { ImageScanner } from '$core/image/scanner';
import type { ImageReport, ImageTask } from './messages';

const HASHERS: Readonly<Record<DigestKind, () => Promise<IHasher>>> = {
	sha256: createSHA256,
	sha1: createSHA1,
	md5: createMD5,
	sha512: createSHA512
};
const REPORT_EVERY_MS = 120;
const say = (report: ImageReport): void => postMessage(report);

onmessage = ({ data }: MessageEvent<ImageTask>) => {
	read(data).catch((error: unknown) =>
		say({ type: 'failed', why: `The file could not be read to its end: ${(error as Error).message}. Choose it again.` })
	);
};

async function read({ file, kinds }: ImageTask): Promise<void> {
	const form = sniffForm(new Uint8Array(await file.slice(0, 16).arrayBuffer()));
	const hashers = await Promise.all(kinds.map(async (kind) => [kind, await HASHERS[kind]()] as const));
	const scanner = form === 'raw' || form === 'gzip' ? new ImageScanner() : null;
	const unpacked = form === 'gzip' && scanner ? unpackInto(scanner) : null;
	let bytes = 0;
	let saidMs = 0;
	const reader = file.stream().getReader();
	for (;;) {
		const { done, value } = await reader.read();
		if (done) break;
		for (const [, hasher] of hashers) hasher.update(value);
		if (form === 'raw') scanner?.push(value);
		await unpacked?.push(value);
		bytes += value.length;
		if (performance.now() - saidMs > REPORT_EVERY_MS) {
			saidMs = performance.now();
			say({ type: 'progress', bytes });
		}
	}
	const whole = (await unpacked?.end()) ?? true;
	say({
		type: 'done',
		form,
		digests: Object.fromEntries(hashers.map(([kind, hasher]) => [kind, hasher.digest('hex')])),
		scan: whole ? (scanner?.finish() ?? null) : null,
		torn: !whole
	});
}

/** Unpacks as fast as it is fed, and no faster: what is not taken up yet holds the reading back. `end` says whether it was whole. */
function unpackInto(scanner: ImageScanner): { push(chunk: Uint8Array): Promise<void>; end(): Promise<boolean> } {
	const stream = new DecompressionStream('gzip');
	const writer = stream.writable.getWriter();
	let torn = false;
	const taken = (async () => {
		const reader = stream.readable.getReader();
		for (;;) {
			const { done, value } = await reader.read();
			if (done) return;
			scanner.push(value);
		}
	})().catch(() => void (torn = true));
	return {
		async push(chunk) {
			if (!torn) await writer.write(chunk as Uint8Array<ArrayBuffer>).catch(() => void (torn = true));
		},
		async end() {
			if (!torn) await writer.close().catch(() => void (torn = true));
			await taken;
			return !torn;
		}
	};
}
