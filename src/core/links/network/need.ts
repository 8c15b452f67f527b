import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import { computeRadio, computeWire, type Capacity } from './capacity';
import { networkWays } from '../../parts/networkOf';
import type { NetworkSettings } from './settings';

/** A socket whose speed nobody has said. Typical of older boards. */
const USUAL_MBPS = 100;

/** The air as planned, as far as the endpoint's own Wi-Fi can follow. */
function radioOf({ radio }: NetworkSettings, context: Context): NetworkSettings['radio'] {
	const own = networkWays(context)?.radio;
	if (!own) return radio;
	return {
		...radio,
		bandGhz: own.fiveGhz ? radio.bandGhz : 2.4,
		widthMhz: Math.min(radio.widthMhz, own.radioWidthMhz) as typeof radio.widthMhz,
		streams: Math.min(radio.streams, own.radioStreams) as typeof radio.streams
	};
}

/** What the way to the network gives; null without one. */
export function pathOf(settings: NetworkSettings, context: Context): Capacity | null {
	if (settings.way === 'none') return null;
	if (settings.way === 'radio') return computeRadio(radioOf(settings, context));
	return computeWire(networkWays(context)?.wiredMbps || USUAL_MBPS);
}

/** From a press to its answer over one hop: as a rule, and the worst of a hundred. Milliseconds, typical. */
export function latencyMs(network: NetworkSettings): { usual: number; worst: number; lossPercent: number } {
	if (network.way === 'wired') return { usual: 0.5, worst: 1, lossPercent: 0 };
	const busy = network.radio.othersPercent / 100;
	const weak = Math.max(0, (-60 - network.radio.signalDbm) / 30);
	return { usual: 3 + 12 * busy, worst: 20 + 180 * busy + 150 * weak, lossPercent: 0.1 + 2 * busy * weak };
}

/** What the path must carry, bit/s. */
export interface Need {
	/** The largest that plays, and everything beside it: recordings, updates. */
	readonly busiestBps: number;
	/** Whose it is, in words. */
	readonly who: string;
}

/** At the worst moment of the day, or within one hour of it. */
export function computeNeed(claims: readonly Claim[], hour?: number): Need {
	const paths = claimsOn(claims, 'path').filter(
		(claim) => hour === undefined || claim.hour === undefined || claim.hour === hour
	);
	const isBeside = ({ writes, hour: only }: (typeof paths)[number]): boolean => writes === true || only !== undefined;
	const largest = paths
		.filter((claim) => !isBeside(claim))
		.reduce<(typeof paths)[number] | null>(
			(best, claim) => (claim.bitsPerSec > (best?.bitsPerSec ?? 0) ? claim : best),
			null
		);
	const beside = paths.filter(isBeside);
	return {
		busiestBps: (largest?.bitsPerSec ?? 0) + beside.reduce((sum, { bitsPerSec }) => sum + bitsPerSec, 0),
		who: [largest, ...beside].flatMap((claim) => (claim ? [claim.what] : [])).join(' and ') || 'nothing'
	};
}

/** How busy other people make the air, hour by hour, against their busiest. Typical of a place where people live. */
const OTHERS_BY_HOUR = [
	...[0.3, 0.2, 0.15, 0.1, 0.1, 0.15, 0.3, 0.5, 0.6, 0.55, 0.5, 0.5],
	...[0.6, 0.55, 0.5, 0.55, 0.65, 0.8, 0.9, 1, 1, 0.95, 0.75, 0.5]
] as const;

interface HourOfPath {
	readonly hour: number;
	readonly givesBps: number;
	readonly needsBps: number;
}

/** What the way gives and what is needed in each hour; in quiet hours nothing plays. Null without a way. */
export function pathOverDay(
	settings: NetworkSettings,
	context: Context,
	claims: readonly Claim[],
	isQuietAt: (hour: number) => boolean
): HourOfPath[] | null {
	const path = pathOf(settings, context);
	if (!path) return null;
	const claimed = claimsOn(claims, 'path');
	const { way } = settings;
	const radio = radioOf(settings, context);
	return OTHERS_BY_HOUR.map((share, hour) => ({
		hour,
		givesBps:
			way === 'radio' ? computeRadio({ ...radio, othersPercent: radio.othersPercent * share }).realBps : path.realBps,
		needsBps: computeNeed(isQuietAt(hour) ? claimed.filter((claim) => claim.hour !== undefined) : claimed, hour)
			.busiestBps
	}));
}
