import { STATION_LOOPS } from '$demo/stations';
import { box, writePng, type Drawing } from '$core/formats/drawing';
import { icyBlock } from '$core/formats/icy';

import { standInFeed } from './standInFeeds';

/** A stand-in for the stream servers of the world: made-up stations, each able to misbehave as real ones do. */

const bytesOf = (name: keyof typeof STATION_LOOPS): Uint8Array<ArrayBuffer> =>
	Uint8Array.from(Buffer.from(STATION_LOOPS[name], 'base64'));

interface Station {
	readonly name: string;
	readonly type: string;
	readonly kbps: number;
	readonly loop: () => Uint8Array<ArrayBuffer>;
	readonly titles: readonly string[];
}
/** By the last part of the address. */
export const STATIONS: Readonly<Record<string, Station>> = {
	harbour: {
		name: 'Harbour Radio',
		type: 'audio/aac',
		kbps: 128,
		loop: () => bytesOf('harbour.aac'),
		titles: ['The Skerries \u2013 Slow tide', 'Ebb & Flow \u2013 Morning swell', 'Harbour news']
	},
	night: {
		name: 'Night programme',
		type: 'audio/mpeg',
		kbps: 192,
		loop: () => bytesOf('night.mp3'),
		titles: ['Lamp and Lens \u2013 Dim watch', 'The Keepers \u2013 Half past two']
	}
};
/** A boat on the water, and a lamp at night. */
const LOGOS: Readonly<Record<string, Drawing>> = {
	'harbour.png': {
		widthPx: 48,
		heightPx: 48,
		ground: '#0f5c4a',
		shapes: [
			box(23, 8, 2, 22, '#f4f0e4'),
			box(26, 12, 10, 14, '#f4f0e4'),
			box(10, 30, 28, 5, '#f4f0e4'),
			box(0, 37, 48, 11, '#2f5680')
		]
	},
	'night.png': {
		widthPx: 48,
		heightPx: 48,
		ground: '#1c2b33',
		shapes: [box(19, 18, 10, 24, '#f4f0e4'), box(17, 12, 14, 6, '#e0a93b'), box(15, 42, 18, 3, '#f4f0e4')]
	}
};
const TITLE_SEC = 10;
const ICY_INTERVAL = 8000;
/** Sent at once, as stations do, so that a player begins soon. */
const BURST_SEC = 2;
const TICK_MS = 100;
/** Whoever takes nothing for so long has gone. */
const IDLE_MS = 20_000;
/** No more of them at once, and none for longer. */
const MOST_STREAMS = 20;
const LONGEST_MS = 30 * 60_000;
let open = 0;

/** How a station misbehaves, as it stands behind the address: "?slow", "?cut=10". */
export interface Misbehaviour {
	/** Half as fast as it is played. */
	readonly slow: boolean;
	/** Now and then nothing comes for a while. */
	readonly jitter: boolean;
	/** It ends after so many seconds. */
	readonly cutSec: number | null;
	/** The first byte comes so late. */
	readonly lateSec: number;
}
const numberIn = (text: string | null, usual: number): number | null => {
	if (text === null) return null;
	const value = text === '' ? usual : Number(text);
	return Number.isFinite(value) && value >= 0 && value <= 3600 ? value : usual;
};
const misbehaviour = (query: URLSearchParams): Misbehaviour => ({
	slow: query.has('slow'),
	jitter: query.has('jitter'),
	cutSec: numberIn(query.get('cut'), 10),
	lateSec: numberIn(query.get('late'), 4) ?? 0
});

const text = (body: string, status: number, type = 'text/plain; charset=utf-8'): Response =>
	new Response(body, { status, headers: { 'content-type': type, 'cache-control': 'no-store' } });
const redirect = (location: string): Response => new Response(null, { status: 302, headers: { location } });

/** When nothing comes: every so often, so long. */
const JITTER = { everySec: 7, lastsSec: 1.5 };

/** A station's bytes as time passes. */
function stream(
	station: Station,
	{ slow, jitter, cutSec, lateSec }: Misbehaviour,
	titled: boolean
): ReadableStream<Uint8Array> {
	const loop = station.loop();
	const bytesPerSec = (station.kbps * 1000) / 8;
	let timer: ReturnType<typeof setInterval>;
	let sent = 0;
	let untilTitle = ICY_INTERVAL;
	let title = '';
	let takenMs = performance.now();
	const end = (): void => {
		clearInterval(timer);
		open--;
	};
	return new ReadableStream<Uint8Array>(
		{
			start(controller) {
				open++;
				const startMs = performance.now() + lateSec * 1000;
				const push = (bytes: Uint8Array): void => {
					if (!titled) return controller.enqueue(bytes);
					for (let at = 0; at < bytes.length;) {
						const many = Math.min(untilTitle, bytes.length - at);
						controller.enqueue(bytes.subarray(at, at + many));
						at += many;
						untilTitle -= many;
						if (untilTitle > 0) continue;
						const { titles } = station;
						const now = titles[Math.floor(sent / bytesPerSec / TITLE_SEC) % titles.length]!;
						controller.enqueue(icyBlock(now === title ? '' : now));
						title = now;
						untilTitle = ICY_INTERVAL;
					}
				};
				timer = setInterval(() => {
					const sec = (performance.now() - startMs) / 1000;
					if (sec < 0) return;
					if (sec * 1000 > LONGEST_MS || (cutSec !== null && sec > cutSec)) {
						end();
						return controller.close();
					}
					if (jitter && sec % JITTER.everySec > JITTER.everySec - JITTER.lastsSec) return;
					// Whoever does not take it gets no more until they do.
					if ((controller.desiredSize ?? 0) <= 0) {
						if (performance.now() - takenMs < IDLE_MS) return;
						end();
						return controller.error(new Error('nobody listens'));
					}
					takenMs = performance.now();
					const due = Math.floor((slow ? 0.5 * sec : sec + BURST_SEC) * bytesPerSec);
					while (sent < due) {
						const at = sent % loop.length;
						const many = Math.min(loop.length - at, due - sent);
						push(loop.subarray(at, at + many));
						sent += many;
					}
				}, TICK_MS);
			},
			cancel: end
		},
		{ highWaterMark: 1_000_000, size: ({ length }: Uint8Array) => length }
	);
}

/** Bytes, or the part of them that is asked for. Source: RFC 9110, 14.2 and 14.4. */
function ranged(bytes: Uint8Array<ArrayBuffer>, type: string, range: string | null): Response {
	const headers = { 'content-type': type, 'accept-ranges': 'bytes', 'cache-control': 'no-store' };
	const m = /^bytes=(\d{0,12})-(\d{0,12})$/.exec(range ?? '');
	if (!m || (m[1] === '' && m[2] === '')) return new Response(bytes, { headers });
	const from = m[1] === '' ? Math.max(0, bytes.length - Number(m[2])) : Number(m[1]);
	const to = m[1] === '' || m[2] === '' ? bytes.length - 1 : Math.min(bytes.length - 1, Number(m[2]));
	if (from > to)
		return new Response(null, { status: 416, headers: { ...headers, 'content-range': `bytes */${bytes.length}` } });
	return new Response(bytes.slice(from, to + 1), {
		status: 206,
		headers: { ...headers, 'content-range': `bytes ${from}-${to}/${bytes.length}` }
	});
}

const HLS = {
	variants: [48, 96],
	segments: 3,
	segmentSec: 2,
	window: 5,
	type: 'application/vnd.apple.mpegurl'
} as const;

/** The newest segments of an endless programme, by the clock. Source: RFC 8216, 4.3 and 6.2.2. */
function hlsMedia(kbps: number, nowMs: number): string {
	const newest = Math.floor(nowMs / 1000 / HLS.segmentSec);
	const first = newest - HLS.window + 1;
	const lines = Array.from({ length: HLS.window }, (_, n) => {
		const number = first + n;
		return [
			...(number % HLS.segments === 0 ? ['#EXT-X-DISCONTINUITY'] : []),
			`#EXTINF:${HLS.segmentSec.toFixed(3)},`,
			`${kbps}/${number}.ts`
		];
	});
	const breaks = Math.ceil(first / HLS.segments);
	return [
		'#EXTM3U',
		'#EXT-X-VERSION:3',
		`#EXT-X-TARGETDURATION:${HLS.segmentSec}`,
		`#EXT-X-MEDIA-SEQUENCE:${first}`,
		`#EXT-X-DISCONTINUITY-SEQUENCE:${breaks}`,
		...lines.flat(),
		''
	].join('\n');
}

function hls(path: string, nowMs: number): Response | null {
	if (path === 'tide.m3u8') {
		const variants = HLS.variants.flatMap((kbps) => [
			`#EXT-X-STREAM-INF:BANDWIDTH=${kbps * 1300},CODECS="mp4a.40.2"`,
			`tide-${kbps}.m3u8`
		]);
		return text(['#EXTM3U', '#EXT-X-VERSION:3', ...variants, ''].join('\n'), 200, HLS.type);
	}
	const media = /^tide-(48|96)\.m3u8$/.exec(path);
	if (media) return text(hlsMedia(Number(media[1]), nowMs), 200, HLS.type);
	const segment = /^(48|96)\/(\d{1,12})\.ts$/.exec(path);
	if (!segment) return null;
	const name = `tide-${segment[1]}-${Number(segment[2]) % HLS.segments}.ts` as keyof typeof STATION_LOOPS;
	return new Response(bytesOf(name), { headers: { 'content-type': 'video/mp2t', 'cache-control': 'no-store' } });
}

/**
 * Answers as a stream server would. Paths: harbour and night (endless, with titles), their files as night.mp3 and harbour.aac
 * (with ranges), tide.m3u8 (HLS, two variants), list.m3u (leads to list.pls, and that to a station), feeds/tides.csv,
 * feeds/ferry.csv, feeds/weather.json, feeds/tours.ics, feeds/news.xml. Behind any of them:
 * ?refuse, ?moved, ?circle, ?type (says that it is a page), ?slow, ?jitter, ?cut=SECONDS, ?late=SECONDS.
 */
export function standIn(path: string, url: URL, headers: Headers, nowMs: number): Response {
	const query = url.searchParams;
	// Names of ours, and nothing that a browser takes for another host or a header for its end.
	if (!/^[A-Za-z0-9_-]+(?:[./][A-Za-z0-9_-]+)*$/.test(path)) return text('No station is at this address.\n', 404);
	if (query.has('refuse')) return text('This stand-in refuses, as it was asked to.\n', 503);
	if (query.has('circle')) return redirect(`${path}?circle`);
	if (query.has('moved')) return redirect(path);
	const found = hls(path, nowMs);
	if (found) return found;
	if (path === 'list.m3u') return text('#EXTM3U\n#EXTINF:-1,The other list\nlist.pls\n', 200, 'audio/x-mpegurl');
	if (path === 'list.pls')
		return text('[playlist]\nNumberOfEntries=1\nFile1=night\nTitle1=Night programme\n', 200, 'audio/x-scpls');
	if (path === 'list-circle.m3u') return text('#EXTM3U\nlist-circle.m3u\n', 200, 'audio/x-mpegurl');
	const feed = standInFeed(path, query, nowMs);
	if (feed) return feed;
	const file = /^(harbour\.aac|night\.mp3)$/.exec(path)?.[1] as 'harbour.aac' | 'night.mp3' | undefined;
	if (file) return ranged(bytesOf(file), file.endsWith('aac') ? 'audio/aac' : 'audio/mpeg', headers.get('range'));
	const logo = LOGOS[path];
	if (logo && Object.hasOwn(LOGOS, path))
		return new Response(writePng(logo) as Uint8Array<ArrayBuffer>, { headers: { 'content-type': 'image/png' } });
	const station = STATIONS[path];
	if (!station || !Object.hasOwn(STATIONS, path)) return text('No station is at this address.\n', 404);
	if (open >= MOST_STREAMS) return text('Too many listen already.\n', 503);
	const titled = headers.get('icy-metadata') === '1';
	return new Response(stream(station, misbehaviour(query), titled), {
		headers: {
			'content-type': query.has('type') ? 'text/html; charset=utf-8' : station.type,
			'cache-control': 'no-store',
			'icy-name': encodeURI(station.name).replaceAll('%20', ' '),
			'icy-br': String(station.kbps),
			...(titled ? { 'icy-metaint': String(ICY_INTERVAL) } : {})
		}
	});
}
