import type { Step } from '../../../link/step';
import type { Context } from '../../../link/context';
import { placeKind } from '../../../files/mediaPlace';
import type { Media } from '../../../parts/media';
import type { SourcesSettings } from '../settings';

/** Where a computer sends its picture unless another port is typed. */
export const RECEIVE_ADDRESS = 'udp://0.0.0.0:5600';
/** Of a picture of 1280 × 720 at 30 frames a second that is encoded without delay. Typical. */
export const RECEIVED_BPS = 8_000_000;

/** The port at which an entry waits for what others send; null: it is fetched, or lies on the card. Source: ffmpeg-protocols(1), udp, rtp. */
export function receivedAt(location: string): number | null {
	const port = Number(/^(?:udp|rtp):\/\/(?:@|0\.0\.0\.0)?:(\d{1,5})(?:[/?]|$)/i.exec(location)?.[1] ?? NaN);
	return port >= 1 && port <= 65_535 ? port : null;
}

/** A stream that is fetched, and not waited for. */
export const isFetched = ({ location }: { readonly location: string }): boolean =>
	placeKind(location) === 'stream' && receivedAt(location) === null;

/** What is taken to come until somebody says how it is made. */
export const receivedMedia = (location: string): Media => ({
	location,
	codec: 'aac',
	lossless: false,
	sampleRateHz: 48_000,
	bitDepth: 16,
	channels: 2,
	bitRateBps: RECEIVED_BPS,
	durationMs: null,
	sizeBytes: null,
	sha256: '',
	kept: 'person',
	from: 'assumed',
	picture: { codec: 'h264', widthPx: 1280, heightPx: 720, framesPerSec: 30, bitDepth: 8 }
});

/** How each system's ffmpeg takes its own screen. Source: ffmpeg-devices(1): x11grab, gdigrab, avfoundation. */
const GRAB = {
	Linux: '-f x11grab -framerate 30 -i :0.0',
	Windows: '-f gdigrab -framerate 30 -i desktop',
	macOS: '-f avfoundation -framerate 30 -capture_cursor 1 -i "Capture screen 0"'
} as const;

/** The command that sends this computer's picture there: encoded at once, without frames that wait for later ones. */
export const sendCommand = (system: keyof typeof GRAB, host: string, port: number): string =>
	`ffmpeg ${GRAB[system]} -vf scale=1280:-2,format=yuv420p -c:v libx264 -preset ultrafast -tune zerolatency -g 30 -b:v 6M -maxrate 8M -bufsize 1M -f mpegts udp://${host}:${port}?pkt_size=1316`;

/** What to run on the computer whose picture is to be seen. */
export function receiveSteps({ items }: SourcesSettings, { facts }: Context): Step[] {
	const port = items.map(({ location }) => receivedAt(location)).find((found) => found !== null);
	if (port === undefined || port === null || facts.system !== 'plain') return [];
	const host = `${facts.hostName}.local`;
	return [
		{
			id: 'send-screen',
			phase: 'check',
			needs: ['verified'],
			do: `On the computer whose picture it is to show, run ffmpeg; this is the command for Linux. On Windows begin it with "ffmpeg ${GRAB.Windows}", on macOS with "ffmpeg ${GRAB.macOS}".`,
			command: sendCommand('Linux', host, port),
			expect:
				'The picture stands on the screen within a few seconds, and follows the computer with the delay that the plan foretells.',
			reading: 'delay: film both screens with a clock on them, and take one time from the other'
		}
	];
}
