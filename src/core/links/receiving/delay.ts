import type { ReceivingSettings } from './settings';
import { waysOf, type Way } from './ways';

/** One stage between a sender's press and the ear, ms. */
interface DelayStage {
	readonly what: string;
	readonly ms: number;
}
/** The way from a sender to the ear. */
interface WayDelay {
	readonly way: Way;
	readonly stages: readonly DelayStage[];
	readonly totalMs: number;
}

/** A frame of the codec is 1024 samples, and one is kept back. Source: ISO/IEC 14496-3 (AAC-LC), at 48 kHz. */
const AAC_MS = (2 * 1024) / 48;
/** What the sender gathers before it sends, and what its packets wait for the air. Typical of phones; they do not say. */
const PHONE_MS = 120;
const AIR_MS = 20;
/** Kept by the sending computer's tunnel unless it is asked for less. Source: PulseAudio 16.1, module-tunnel.c, DEFAULT_LATENCY_MSEC. */
const TUNNEL_MS = 100;
const NETWORK_MS = 5;
/** A packet of the transport stream is filled before it goes: 2930 bytes at 192 kbit/s. Source: ffmpeg-formats(1), mpegts, pes_payload_size. */
const FILL_MS = (2930 * 8) / 192;

/** The mixing device gives each program so much and no more, in steps. Measured at a real start, alsa-lib 1.2.8, dmix without period_time. */
const MIXED = { leastMs: 250, mostMs: 375, stepMs: 125 } as const;

/** What is really kept ready for a wish, ms; `shared`: by way of the mixing device. */
export const keptMs = (bufferMs: number, shared: boolean): number =>
	shared
		? Math.min(MIXED.mostMs, Math.max(MIXED.leastMs, Math.ceil(bufferMs / MIXED.stepMs) * MIXED.stepMs))
		: bufferMs;

/** What each way takes from the sender to the converter. The buffer is full as a rule, so all of it counts. */
export function delaysOf(settings: ReceivingSettings, shared: boolean): WayDelay[] {
	const own: DelayStage = { what: 'kept ready here', ms: keptMs(settings.bufferMs, shared) };
	const stages: Readonly<Record<Way, readonly DelayStage[]>> = {
		bluetooth: [{ what: 'in the phone', ms: PHONE_MS }, { what: 'in the air', ms: AIR_MS }, own],
		server: [{ what: 'in the computer', ms: TUNNEL_MS }, { what: 'on the network', ms: NETWORK_MS }, own],
		rtp: [{ what: 'encoded and packed', ms: AAC_MS + FILL_MS }, { what: 'on the network', ms: NETWORK_MS }, own]
	};
	return waysOf(settings).map((way) => ({
		way,
		stages: stages[way],
		totalMs: stages[way].reduce((sum, { ms }) => sum + ms, 0)
	}));
}

/** Two crystals run apart by so much at most. Typical of what boards and converters carry. */
const CRYSTALS_PPM = 100;
/** Until a buffer has run empty or over because nobody matches the two clocks, minutes. Only RTP has nobody who does. */
export const minutesToGap = (bufferMs: number): number => bufferMs / 2 / (CRYSTALS_PPM / 1e6) / 60_000;

/** Two sounds that arrive farther apart than this are heard as an echo. Source: the precedence effect, for speech; music bears more. */
export const ECHO_MS = 40;
/** From room to room the same sound differs by this at worst: each begins when its own buffer is full. */
export const apartMs = (bufferMs: number, othersMs: readonly number[]): number =>
	Math.max(0, ...othersMs.map((other) => Math.abs(other - bufferMs) + Math.min(other, bufferMs) / 5));
