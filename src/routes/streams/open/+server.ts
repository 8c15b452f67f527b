import { Readable } from 'node:stream';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { fetchable, fetchOnce, Refused } from '$lib/server/guard';
import type { RequestHandler } from './$types';

/** What is asked for: an address that the person typed; `allowed`: the venue's own range, where the person allows it. */
const asked = z.object({ url: z.string().max(2000), allowed: z.string().max(20).nullable() });
const MOST_HOPS = 5;
/** Of one stream. */
const MOST_BYTES = 100_000_000;
const LONGEST_MS = 11 * 60_000;
const MOST_AT_ONCE = 6;
let open = 0;

/** Hosts that can be nobody's are played by the stand-in. Source: RFC 2606, 2. */
const MADE_UP = /(?:^|\.)example$/i;

const refuse = (status: number, why: string): Response => json({ why }, { status });

/**
 * Fetches a stream for the page, where the browser may not. The answer's body is the stream; its header X-Stream says in JSON
 * where it came from: { hops, type, icyName, icyBps, icyInterval }. Without that header the body is JSON: { why } it was not fetched.
 */
export const POST: RequestHandler = async ({ request, url: own, fetch }) => {
	// Only our own page may have something fetched: a page of strangers cannot set this header across origins.
	if (request.headers.get('sec-fetch-site') !== 'same-origin' && request.headers.get('origin') !== own.origin)
		return refuse(403, 'Only Yphos\u2019s own page may ask for that.');
	const wanted = asked.safeParse(await request.json().catch(() => null));
	if (!wanted.success) return refuse(400, 'That is no address.');
	if (open >= MOST_AT_ONCE) return refuse(429, 'Too many streams are tried at once; stop one of them.');
	const end = AbortSignal.any([request.signal, AbortSignal.timeout(LONGEST_MS)]);
	const hops: string[] = [];
	open++;
	let freed = false;
	const free = (): void => {
		if (!freed) open--;
		freed = true;
	};
	try {
		let url = fetchable(wanted.data.url);
		for (;;) {
			if (hops.includes(url.href)) throw new Refused('The address leads round in a circle.');
			if (hops.length > MOST_HOPS) throw new Refused(`The address leads on more than ${MOST_HOPS} times.`);
			hops.push(url.href);
			const answer = await askFor(url, wanted.data.allowed, fetch, end);
			if (answer.status >= 300 && answer.status < 400 && answer.headers.location) {
				answer.cancel();
				url = fetchable(new URL(answer.headers.location, url).href);
				continue;
			}
			if (answer.status !== 200) {
				answer.cancel();
				throw new Refused(
					`${url.host} answers ${answer.status}${answer.status === 503 ? ': it refuses, or is full' : answer.status === 404 ? ': there is nothing at this address' : ''}.`
				);
			}
			const { headers } = answer;
			const said = {
				hops,
				type: headers['content-type'] ?? '',
				icyName: headers['icy-name'] ?? '',
				icyBps: (Number.parseInt(headers['icy-br'] ?? '', 10) || 0) * 1000,
				icyInterval: Math.min(1_000_000, Number.parseInt(headers['icy-metaint'] ?? '', 10) || 0)
			};
			return new Response(bounded(answer.body, free), {
				headers: {
					'content-type': 'application/octet-stream',
					'cache-control': 'no-store',
					'x-stream': encodeURIComponent(JSON.stringify(said))
				}
			});
		}
	} catch (error) {
		free();
		return refuse(200, error instanceof Refused ? error.message : 'It could not be fetched.');
	}
};

interface Answer {
	readonly status: number;
	readonly headers: Readonly<Record<string, string | undefined>>;
	readonly body: ReadableStream<Uint8Array>;
	cancel(): void;
}

async function askFor(url: URL, allowed: string | null, fetchOwn: typeof fetch, signal: AbortSignal): Promise<Answer> {
	const headers = { 'icy-metadata': '1', 'user-agent': 'Yphos', accept: '*/*' };
	if (MADE_UP.test(url.hostname)) {
		const answer = await fetchOwn(`/stand-in${url.pathname}${url.search}`, { headers, redirect: 'manual', signal });
		return {
			status: answer.status,
			headers: Object.fromEntries(answer.headers),
			body: answer.body ?? new ReadableStream(),
			cancel: () => void answer.body?.cancel()
		};
	}
	const answer = await fetchOnce(url, headers, allowed, signal);
	return {
		status: answer.statusCode ?? 0,
		headers: answer.headers as Record<string, string>,
		body: Readable.toWeb(answer) as unknown as ReadableStream<Uint8Array>,
		cancel: () => answer.destroy()
	};
}

/** Ends after so many bytes, and says when it has ended however it did. */
function bounded(body: ReadableStream<Uint8Array>, onEnd: () => void): ReadableStream<Uint8Array> {
	const reader = body.getReader();
	let left = MOST_BYTES;
	return new ReadableStream({
		async pull(controller) {
			try {
				const { done, value } = await reader.read();
				if (done || (left -= value.length) < 0) {
					onEnd();
					void reader.cancel().catch(() => undefined);
					return controller.close();
				}
				controller.enqueue(value);
			} catch {
				onEnd();
				controller.close();
			}
		},
		cancel(reason) {
			onEnd();
			return reader.cancel(reason);
		}
	});
}
