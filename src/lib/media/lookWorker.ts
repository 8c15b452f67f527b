/** Looks into files beside the page: digest, facts, loudness, and a small picture of what is seen. */
import { expose } from 'comlink';
import { createSHA256 } from 'hash-wasm';
import { ALL_FORMATS, AudioSampleSink, BlobSource, CanvasSink, Input, Logging, LogLevel } from 'mediabunny';
import { LoudnessMeter, type Loudness } from '$core/standards/loudness';
import { lookAt, stillFacts, type FileFacts } from './look';
import { STRIP, type Strip } from './strip';

// What it cannot read the person hears of, file by file.
Logging.level = LogLevel.Errors;

/** What is wanted of a file besides its digest and facts. */
export interface Wanted {
	readonly loudness: boolean;
}
/** All that was found out about a file. */
export interface Found {
	readonly sha256: string;
	readonly facts: FileFacts | null;
	readonly strip: Strip | null;
}

/** Told now and then while a file is worked on, so that one that gets on is told from one that does not. */
type OnLife = () => void;
const LIFE_MS = 2000;
function seldom(onLife: OnLife): OnLife {
	let saidMs = performance.now();
	return () => {
		if (performance.now() - saidMs < LIFE_MS) return;
		saidMs = performance.now();
		onLife();
	};
}

async function digestOf(file: Blob, onLife: OnLife): Promise<string> {
	const hasher = await createSHA256();
	const reader = file.stream().getReader();
	for (;;) {
		const { done, value } = await reader.read();
		if (done) return hasher.digest('hex');
		hasher.update(value);
		onLife();
	}
}

/** Of sound that this browser decodes; null: it does not. */
async function loudnessOf(file: Blob, onLife: OnLife): Promise<Loudness | null> {
	const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
	try {
		const track = await input.getPrimaryAudioTrack();
		if (!track || !(await track.canDecode())) return null;
		const meter = new LoudnessMeter(await track.getSampleRate(), await track.getNumberOfChannels());
		let planes: Float32Array[] = [];
		for await (const sample of new AudioSampleSink(track).samples()) {
			if (planes[0]?.length !== sample.numberOfFrames || planes.length !== sample.numberOfChannels)
				planes = Array.from({ length: sample.numberOfChannels }, () => new Float32Array(sample.numberOfFrames));
			for (const [planeIndex, plane] of planes.entries()) sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
			sample.close();
			meter.push(planes);
			onLife();
		}
		return meter.result();
	} catch {
		// A file that is damaged further on keeps the facts of its head.
		return null;
	} finally {
		input.dispose();
	}
}

async function asStrip(canvas: OffscreenCanvas, frames: number): Promise<Strip> {
	const blob = await canvas.convertToBlob({ type: 'image/webp', quality: 0.7 });
	const bytes = new Uint8Array(await blob.arrayBuffer());
	let text = '';
	for (const byte of bytes) text += String.fromCharCode(byte);
	return { dataUrl: `data:${blob.type};base64,${btoa(text)}`, frames };
}

/** A picture within one frame of a strip, its shape kept. */
function drawWithin(
	canvas: OffscreenCanvas,
	picture: CanvasImageSource,
	width: number,
	height: number,
	n: number
): void {
	const scale = Math.min(STRIP.widthPx / width, STRIP.heightPx / height);
	const [w, h] = [width * scale, height * scale];
	canvas
		.getContext('2d')!
		.drawImage(picture, n * STRIP.widthPx + (STRIP.widthPx - w) / 2, (STRIP.heightPx - h) / 2, w, h);
}

/** Of a still picture or a cover; the browser turns it as its camera says. */
async function stillStrip(image: Blob): Promise<Strip | null> {
	const bitmap = await createImageBitmap(image).catch(() => null);
	if (!bitmap) return null;
	const canvas = new OffscreenCanvas(STRIP.widthPx, STRIP.heightPx);
	drawWithin(canvas, bitmap, bitmap.width, bitmap.height, 0);
	bitmap.close();
	return asStrip(canvas, 1);
}

async function filmStrip(file: Blob): Promise<Strip | null> {
	const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
	try {
		const track = await input.getPrimaryVideoTrack();
		if (!track || !(await track.canDecode())) return null;
		const first = await track.getFirstTimestamp();
		const length = (await track.computeDuration()) - first;
		const at = Array.from({ length: STRIP.frames }, (_, n) => first + ((n + 0.5) * length) / STRIP.frames);
		const canvas = new OffscreenCanvas(STRIP.frames * STRIP.widthPx, STRIP.heightPx);
		const sink = new CanvasSink(track, { width: STRIP.widthPx, height: STRIP.heightPx, fit: 'contain', poolSize: 2 });
		let n = 0;
		for await (const frame of sink.canvasesAtTimestamps(at)) {
			if (frame) drawWithin(canvas, frame.canvas as OffscreenCanvas, STRIP.widthPx, STRIP.heightPx, n);
			n++;
		}
		return await asStrip(canvas, STRIP.frames);
	} catch {
		return null;
	} finally {
		input.dispose();
	}
}

/** What is neither a film nor read by its own header, but drawn by the browser. */
async function otherStill(file: Blob): Promise<FileFacts | null> {
	const bitmap = await createImageBitmap(file).catch(() => null);
	if (!bitmap) return null;
	const { width, height } = bitmap;
	bitmap.close();
	const codec = /^image\/([a-z0-9]{1,20})/.exec(file.type)?.[1] ?? 'image';
	return stillFacts(new Uint8Array(), { codec, widthPx: width, heightPx: height, bitDepth: 8 });
}

const worker = {
	async look(file: Blob, wanted: Wanted, tell: OnLife): Promise<Found> {
		const onLife = seldom(tell);
		const sha256 = await digestOf(file, onLife);
		const looked = await lookAt(file).catch(() => null);
		const facts = looked?.facts ?? (file.type.startsWith('image/') ? await otherStill(file) : null);
		const picture = facts?.picture;
		const strip = picture
			? await (picture.framesPerSec === null ? stillStrip(file) : filmStrip(file))
			: looked?.cover
				? await stillStrip(looked.cover)
				: null;
		const loudness = wanted.loudness && facts && !facts.silent ? await loudnessOf(file, onLife) : null;
		return {
			sha256,
			facts: facts && loudness && facts.details ? { ...facts, details: { ...facts.details, loudness } } : facts,
			strip
		};
	}
};
export type LookWorker = typeof worker;
expose(worker);
