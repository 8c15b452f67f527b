import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { mediaSchema } from '$core/parts/media';
import { standIn } from '$lib/server/standIn';
import { streamMedia } from './streamMedia';
import { TryStream } from './tryStream.svelte';

/** Answers as the server's own route does, the stand-in behind it. */
async function answer(_: string, { body, signal }: { body: string; signal: AbortSignal }): Promise<Response> {
	const { url } = JSON.parse(body) as { url: string };
	const at = new URL(url);
	const found = standIn(at.pathname.slice(1), at, new Headers({ 'icy-metadata': '1' }), Date.now());
	if (found.status !== 200) return Response.json({ why: `${at.host} answers ${found.status}.` });
	signal.addEventListener('abort', () => void found.body?.cancel().catch(() => undefined));
	const said = {
		hops: [url],
		type: found.headers.get('content-type'),
		icyName: found.headers.get('icy-name') ?? '',
		icyBps: Number(found.headers.get('icy-br')) * 1000,
		icyInterval: Number(found.headers.get('icy-metaint'))
	};
	return new Response(found.body, { headers: { 'x-stream': encodeURIComponent(JSON.stringify(said)) } });
}
beforeEach(() => vi.stubGlobal('fetch', answer));
afterEach(() => vi.unstubAllGlobals());

async function tried(path: string, done: (trial: TryStream) => boolean): Promise<TryStream> {
	const trial = new TryStream(`http://radio.skerrin.example:8000/${path}`, null, null);
	const over = trial.run();
	for (let n = 0; n < 100 && trial.state !== 'ended' && !done(trial); n++)
		await new Promise((next) => setTimeout(next, 50));
	trial.stop();
	await Promise.race([over, new Promise((next) => setTimeout(next, 500))]);
	return trial;
}

describe('a stream that is tried', () => {
	it('says how it is made, what it calls itself and what is played', async () => {
		const trial = await tried('harbour', ({ head, titles }) => head !== null && titles.length > 0);
		expect(trial.head).toMatchObject({ codec: 'aac', sampleRateHz: 48_000, channels: 2 });
		expect(trial.bitRateBps).toBe(128_000);
		expect(trial.titles[0]!.title).toContain('Slow tide');
		expect(trial.firstByteMs).toBeLessThan(3000);
		const media = streamMedia('http://a.example/', trial.head!, trial.bitRateBps);
		expect(mediaSchema.safeParse(media).success).toBe(true);
		expect(media).toMatchObject({ codec: 'aac', lossless: false, bitRateBps: 128_000, durationMs: null });
	});
	it('is found behind a list, and a list behind that', async () => {
		const trial = await tried('list.m3u', ({ head }) => head !== null);
		expect(trial.head?.codec).toBe('mp3');
		expect(trial.came!.hops.map((hop) => hop.slice(hop.lastIndexOf('/') + 1))).toEqual([
			'list.m3u',
			'list.pls',
			'night'
		]);
	});
	it('has variants where it comes in segments', async () => {
		const trial = await tried('tide.m3u8', ({ firstByteMs }) => firstByteMs !== null);
		expect(trial.variants).toEqual([124_800, 62_400]);
	});
	it.each([
		['list-circle.m3u', 'One list leads to the next'],
		['night?type', 'A page is at this address'],
		['night?refuse', 'answers 503'],
		['nobody', 'answers 404'],
		['night?cut=0.3', 'the server closed it']
	])('%s: %s', async (path, why) => expect((await tried(path, () => false)).why).toContain(why));
	it('says that our own server is gone, where it is', async () => {
		vi.stubGlobal('fetch', async () => new Response('<html>', { status: 502 }));
		expect((await tried('night', () => false)).why).toContain('own server cannot be reached');
	});
});
