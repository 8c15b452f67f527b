import { IcyReader } from '$core/formats/icy';
import { readHls } from '$core/formats/hls';
import { readPlaylist } from '$core/formats/playlist';
import { readStreamHead, type StreamHead } from '$core/formats/streamHead';
import { sentence } from '$core/basics/result';
import { openThrough, readShort, type Came } from './openThrough';
import { SHORTEST_PAUSE_MS, triedWith, type Arrival } from '$core/links/sources/streams/arrivals';

/** A list leads to a list so many times at most. */
const MOST_LISTS = 4;
const LIST_BYTES = 200_000;
const TOO_LONG = 'The list behind this address is longer than any list of streams.';
/** So much is enough to know how it is made. */
const HEAD_BYTES = 16_384;
const LONGEST_MS = 10 * 60_000;
/** What a browser plays piece by piece, by codec. */
const PLAYED: Readonly<Record<string, string>> = { mp3: 'audio/mpeg', aac: 'audio/aac' };

const isList = (type: string, url: string): boolean =>
	/mpegurl|x-scpls|xspf|pls/i.test(type) || /\.(?:m3u8?|pls|xspf)(?:\?|$)/i.test(url);

/** One try of a stream: what it leads to, how it comes, and its sound. Stands until `stop`, its end, or ten minutes. */
export class TryStream {
	state = $state<'idle' | 'opening' | 'runs' | 'ended'>('idle');
	why = $state('');
	came = $state.raw<Came | null>(null);
	/** Of an HTTP live stream, bit/s of each variant. */
	variants = $state.raw<readonly number[]>([]);
	head = $state.raw<StreamHead | null>(null);
	titles = $state.raw<readonly { readonly atSec: number; readonly title: string }[]>([]);
	firstByteMs = $state<number | null>(null);
	firstSoundMs = $state<number | null>(null);
	arrivals = $state.raw<readonly Arrival[]>([]);
	heard = $state(false);

	#giveUp = new AbortController();
	#startMs = 0;
	#bytes = 0;
	#source: MediaSource | null = null;
	#buffer: SourceBuffer | null = null;
	#queue: Uint8Array<ArrayBuffer>[] = [];

	/** What playing it takes, bit/s: as its frames say, its server, or its variant; else as it came. */
	bitRateBps = $derived.by(() => {
		const said = this.head?.bitRateBps || this.came?.icyBps || this.variants[0];
		return said || triedWith(this.arrivals, 128_000).rateBps || null;
	});
	/** Segments are asked for as they are made: a pause is what is longer than two of them. */
	#segmentMs = $state(0);
	tried = $derived(
		this.bitRateBps ? triedWith(this.arrivals, this.bitRateBps, Math.max(SHORTEST_PAUSE_MS, 2 * this.#segmentMs)) : null
	);
	lastedSec = $derived((this.arrivals.at(-1)?.atMs ?? 0) / 1000);

	constructor(
		readonly url: string,
		/** The venue's own range, where the person allows it. */
		readonly allowed: string | null,
		readonly audio: HTMLAudioElement | null
	) {}

	stop(): void {
		this.#giveUp.abort();
	}

	async run(): Promise<void> {
		this.state = 'opening';
		this.#startMs = performance.now();
		const timer = setTimeout(() => this.stop(), LONGEST_MS);
		try {
			await this.#follow(this.url, 0);
			if (!this.#giveUp.signal.aborted) this.why = 'The stream has ended by itself: the server closed it.';
		} catch (error) {
			if (!this.#giveUp.signal.aborted) this.why = (error as Error).message;
		} finally {
			clearTimeout(timer);
			this.#giveUp.abort();
			if (this.#source?.readyState === 'open' && !this.#buffer?.updating) this.#source.endOfStream();
			this.state = 'ended';
		}
	}

	#now(): number {
		return performance.now() - this.#startMs;
	}

	#open(url: string): ReturnType<typeof openThrough> {
		return openThrough(url, this.allowed, this.#giveUp.signal);
	}

	async #follow(url: string, depth: number): Promise<void> {
		if (depth > MOST_LISTS) throw new Error('One list leads to the next, and none to a stream.');
		const { came, body } = await this.#open(url);
		const { hops } = came;
		this.came = { ...came, hops: [...(this.came?.hops ?? []), ...hops] };
		const last = hops.at(-1)!;
		if (isList(came.type, last)) {
			const bytes = await readShort(body, LIST_BYTES, TOO_LONG);
			const hls = readHls(new TextDecoder().decode(bytes));
			if (hls.ok) return this.#live(last, hls.value);
			const list = readPlaylist(bytes);
			if (!list.ok) throw new Error(sentence(list.faults));
			return this.#follow(new URL(list.value.entries[0]!.location, last).href, depth + 1);
		}
		if (/^text\/html/i.test(came.type))
			throw new Error('A page is at this address, not a stream. Look on it for the address of the stream itself.');
		await this.#listen(came, body);
	}

	async #listen({ icyInterval }: Came, body: ReadableStreamDefaultReader<Uint8Array<ArrayBuffer>>): Promise<void> {
		const icy = new IcyReader(icyInterval, (title) => this.#title(title));
		let head = new Uint8Array();
		for (;;) {
			const { done, value } = await body.read();
			if (done) return;
			this.#arrived(value.length);
			const sound = icy.take(value) as Uint8Array<ArrayBuffer>;
			if (!this.head && head.length < HEAD_BYTES) {
				const more = new Uint8Array(head.length + sound.length);
				more.set(head);
				more.set(sound, head.length);
				head = more;
				this.head = readStreamHead(head);
				if (this.head) this.#play(this.head.codec, head.slice());
				else if (head.length >= HEAD_BYTES) this.#play('', head.slice());
			} else this.#append(sound.slice());
		}
	}

	/** Segments one after the other, as a player asks for them; the variant that is best. */
	async #live(url: string, list: Extract<ReturnType<typeof readHls>, { ok: true }>['value']): Promise<void> {
		let at = url;
		let now = list;
		if (now.kind === 'variants') {
			const best = [...now.variants].sort((a, b) => b.bandwidthBps - a.bandwidthBps);
			this.variants = best.map(({ bandwidthBps }) => bandwidthBps);
			at = new URL(best[0]!.uri, url).href;
			now = await this.#list(at);
			if (now.kind === 'variants') throw new Error('Its variants lead to variants again.');
		}
		this.#segmentMs = Math.max(...now.segments.map(({ durationSec }) => durationSec)) * 1000;
		// A player begins three segments before the newest. Source: RFC 8216, 6.3.3.
		let next = now.firstNumber + (now.ended ? 0 : Math.max(0, now.segments.length - 3));
		for (;;) {
			for (; next < now.firstNumber + now.segments.length; next++) {
				const segment = now.segments[next - now.firstNumber];
				if (!segment) {
					next = now.firstNumber;
					continue;
				}
				const { body } = await this.#open(new URL(segment.uri, at).href);
				for (;;) {
					const { done, value } = await body.read();
					if (done) break;
					this.#arrived(value.length);
				}
			}
			if (now.ended) return;
			await new Promise((done) => setTimeout(done, 1000));
			if (this.#giveUp.signal.aborted) return;
			const again = await this.#list(at);
			if (again.kind === 'segments') now = again;
		}
	}

	async #list(url: string): Promise<Extract<ReturnType<typeof readHls>, { ok: true }>['value']> {
		const { body } = await this.#open(url);
		const read = readHls(new TextDecoder().decode(await readShort(body, LIST_BYTES, TOO_LONG)));
		if (!read.ok) throw new Error(sentence(read.faults));
		return read.value;
	}

	#title(title: string): void {
		this.titles = [...this.titles.slice(-49), { atSec: this.#now() / 1000, title: title.slice(0, 300) }];
	}

	#saidMs = 0;
	#all: Arrival[] = [];
	#arrived(bytes: number): void {
		const atMs = this.#now();
		this.firstByteMs ??= atMs;
		this.state = 'runs';
		this.#bytes += bytes;
		this.#all.push({ atMs, bytes: this.#bytes });
		// Told to the page a few times a second, not at each packet.
		if (atMs - this.#saidMs < 400) return;
		this.#saidMs = atMs;
		this.arrivals = [...this.#all];
	}

	#play(codec: string, first: Uint8Array<ArrayBuffer>): void {
		const type = PLAYED[codec];
		if (!this.audio || !type || typeof MediaSource === 'undefined' || !MediaSource.isTypeSupported(type)) return;
		const source = new MediaSource();
		this.#source = source;
		this.heard = true;
		this.audio.src = URL.createObjectURL(source);
		this.audio.addEventListener('playing', () => (this.firstSoundMs ??= this.#now()), { once: true });
		source.addEventListener(
			'sourceopen',
			() => {
				this.#buffer = source.addSourceBuffer(type);
				this.#buffer.mode = 'sequence';
				this.#buffer.addEventListener('updateend', () => this.#feed());
				this.#append(first, true);
				void this.audio?.play().catch(() => undefined);
			},
			{ once: true }
		);
	}

	#append(bytes: Uint8Array<ArrayBuffer>, atFront = false): void {
		if (!this.#source) return;
		if (atFront) this.#queue.unshift(bytes);
		else this.#queue.push(bytes);
		this.#feed();
	}

	#feed(): void {
		const buffer = this.#buffer;
		if (!buffer || buffer.updating || this.#source?.readyState !== 'open') return;
		const next = this.#queue.shift();
		if (!next) return;
		try {
			buffer.appendBuffer(next);
		} catch {
			// The browser holds no more, or takes this no longer: it is measured all the same.
			this.#queue = [];
		}
	}
}
