/** Where something came from, as the server route that fetches for the page says it. */
export interface Came {
	readonly hops: readonly string[];
	readonly type: string;
	readonly icyName: string;
	readonly icyBps: number;
	readonly icyInterval: number;
}
/** A body that is read piece by piece. */
type Body = ReadableStreamDefaultReader<Uint8Array<ArrayBuffer>>;

/**
 * Has Yphos's own server fetch an address where the browser may not. Throws with a sentence for the person.
 * @param allowed the venue's own range, where the person allows it
 */
export async function openThrough(
	url: string,
	allowed: string | null,
	signal: AbortSignal
): Promise<{ came: Came; body: Body }> {
	const answer = await fetch('/streams/open', {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ url, allowed }),
		signal
	});
	const said = answer.headers.get('x-stream');
	if (!answer.ok || said === null || !answer.body) {
		const { why } = (await answer.json().catch(() => ({}))) as { why?: string };
		throw new Error(why ?? 'Yphos\u2019s own server cannot be reached; without it nothing can be fetched.');
	}
	return { came: JSON.parse(decodeURIComponent(said)) as Came, body: answer.body.getReader() as never };
}

/** A whole answer that is to be short; throws `tooLong` of one that is longer than `mostBytes`. */
export async function readShort(body: Body, mostBytes: number, tooLong: string): Promise<Uint8Array<ArrayBuffer>> {
	const pieces: Uint8Array<ArrayBuffer>[] = [];
	let length = 0;
	for (;;) {
		const { done, value } = await body.read();
		if (done) return new Uint8Array(await new Blob(pieces).arrayBuffer());
		pieces.push(value);
		if ((length += value.length) > mostBytes) {
			void body.cancel().catch(() => undefined);
			throw new Error(tooLong);
		}
	}
}
