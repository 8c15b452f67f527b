import type { Cargo } from '../plugs';
import type { PartOf, VideoShape } from '../schema';
import { row, socket, type PartRow } from './make';

const PICTURE: Cargo[] = ['picture', 'sound'];
const dec = (codec: VideoShape['codec'], heightPx: number, framesPerSec: number, bitDepth: 8 | 10 = 8): VideoShape => ({
	codec,
	widthPx: heightPx === 2160 ? 3840 : heightPx === 1080 ? 1920 : 1280,
	heightPx,
	framesPerSec,
	bitDepth
});
const usbA = (count: number) => socket('out', 'usb-a', ['data', 'power', 'touch'], count);
const net = () => socket('out', 'network', ['data']);
const header = () => socket('out', 'header', ['data', 'power', 'sound', 'picture'], 1, true);
const flat = () => socket('out', 'flat-display', ['picture', 'touch']);
const fanHeader = () => socket('out', 'fan-header', ['power']);

type Timing = Pick<PartOf<'board'>, 'firmwareSec' | 'kernelSec' | 'servicesSec'>;
const slow: Timing = { firmwareSec: 3.4, kernelSec: 9.5, servicesSec: 11 };
const older: Timing = { firmwareSec: 3.6, kernelSec: 7.2, servicesSec: 6.5 };
const usual: Timing = { firmwareSec: 3.1, kernelSec: 4.4, servicesSec: 3.2 };
const fast: Timing = { firmwareSec: 2.8, kernelSec: 2.6, servicesSec: 2 };

/** A chip without an amplifier of its own. Typical; class 2 of Bluetooth allows as much. */
const BLUETOOTH_DBM = 4;
/** One antenna, the lower band. */
const SMALL_RADIO = { fiveGhz: false, radioWidthMhz: 20, radioStreams: 1 } as const;
const small = {
	bluetoothDbm: BLUETOOTH_DBM,
	...SMALL_RADIO,
	brownOutV: 4.3,
	warnsV: 4.63,
	hasClock: false,
	radio: true,
	usbTotalA: 1.2,
	usbPortA: 1.2,
	header3V3A: 0.5
};
const full = {
	bluetoothDbm: BLUETOOTH_DBM,
	brownOutV: 4.3,
	warnsV: 4.63,
	hasClock: false,
	radio: true,
	wired: true,
	usbTotalA: 1.2,
	usbPortA: 1.2
};
/** A one-lane older circuit: standard definition and full high definition, the older codecs. */
const OLDER = [dec('h264', 1080, 30), dec('mpeg2', 1080, 30)];
const USUAL = [dec('h264', 1080, 60), dec('h265', 2160, 60, 10)];

/** Boards by class. Loads, starting times and heat are typical; each maker's own sheet is surer. */
export const boards: readonly PartRow[] = [
	row('board', {
		...small,
		...slow,
		id: 'board-small-512',
		name: 'Small board, 512 MB, Wi-Fi only',
		price: 17,
		memoryMb: 512,
		idleW: 0.7,
		peakW: 2.9,
		surgeW: 4,
		wired: false,
		wiredMbps: null,
		decoders: OLDER,
		softwareMpixPerSec: 45,
		bareKPerW: 21,
		heatJPerK: 14,
		throttleC: 80,
		sockets: [
			socket('in', 'micro-usb', ['power']),
			socket('out', 'display-mini', PICTURE),
			socket('out', 'micro-usb', ['data', 'power']),
			header()
		]
	}),
	row('board', {
		...small,
		...slow,
		id: 'board-half-512',
		name: 'Half-size board, 512 MB, one USB socket',
		price: 24,
		memoryMb: 512,
		idleW: 0.9,
		peakW: 3.1,
		surgeW: 4.5,
		wired: false,
		wiredMbps: null,
		decoders: OLDER,
		softwareMpixPerSec: 30,
		bareKPerW: 18,
		heatJPerK: 18,
		throttleC: 85,
		sockets: [
			socket('in', 'micro-usb', ['power']),
			socket('out', 'display', PICTURE),
			usbA(1),
			socket('out', 'jack-4', ['sound', 'picture']),
			header()
		]
	}),
	row('board', {
		...full,
		...SMALL_RADIO,
		...older,
		id: 'board-full-1',
		name: 'Older full-size board, 1 GB, one HDMI port',
		price: 38,
		memoryMb: 1024,
		idleW: 1.9,
		peakW: 5.6,
		surgeW: 8,
		wiredMbps: 100,
		header3V3A: 0.5,
		decoders: OLDER,
		softwareMpixPerSec: 70,
		bareKPerW: 13,
		heatJPerK: 34,
		throttleC: 80,
		sockets: [
			socket('in', 'micro-usb', ['power']),
			socket('out', 'display', PICTURE),
			usbA(4),
			socket('out', 'jack-4', ['sound', 'picture']),
			net(),
			flat(),
			header()
		]
	}),
	...(
		[
			[2, 48],
			[4, 62],
			[8, 84]
		] as const
	).map(([memoryGb, price]) =>
		row('board', {
			...full,
			...usual,
			id: `board-full-${memoryGb}`,
			name: `Full-size board, ${memoryGb} GB, two micro HDMI ports`,
			price,
			memoryMb: memoryGb * 1024,
			idleW: 2.7,
			peakW: 7.6,
			surgeW: 10,
			wiredMbps: 1000,
			header3V3A: 0.8,
			displayMhz: 297,
			decoders: USUAL,
			softwareMpixPerSec: 150,
			bareKPerW: 11,
			heatJPerK: 40,
			throttleC: 80,
			sockets: [
				socket('in', 'usb-c', ['power']),
				socket('out', 'display-micro', PICTURE, 2),
				usbA(4),
				socket('out', 'jack-4', ['sound', 'picture']),
				net(),
				flat(),
				header()
			]
		})
	),
	...(
		[
			[4, 70],
			[8, 95]
		] as const
	).map(([memoryGb, price]) =>
		row('board', {
			...full,
			...fast,
			id: `board-fast-${memoryGb}`,
			name: `Fast full-size board, ${memoryGb} GB, clock, fan socket`,
			price,
			memoryMb: memoryGb * 1024,
			idleW: 3,
			peakW: 12,
			surgeW: 16,
			hasClock: true,
			wiredMbps: 1000,
			usbTotalA: 1.6,
			header3V3A: 0.8,
			displayMhz: 594,
			decoders: [dec('h265', 2160, 60, 10)],
			softwareMpixPerSec: 520,
			bareKPerW: 8.5,
			heatJPerK: 46,
			throttleC: 80,
			sockets: [
				socket('in', 'usb-c', ['power']),
				socket('out', 'display-micro', PICTURE, 2),
				usbA(4),
				net(),
				flat(),
				header(),
				fanHeader()
			]
		})
	),
	row('board', {
		...full,
		...usual,
		id: 'board-keyboard-4',
		name: 'Board inside a keyboard, 4 GB, two micro HDMI ports',
		price: 78,
		memoryMb: 4096,
		idleW: 2.5,
		peakW: 6.9,
		surgeW: 9,
		wiredMbps: 1000,
		header3V3A: 0.8,
		displayMhz: 297,
		decoders: USUAL,
		softwareMpixPerSec: 170,
		bareKPerW: 5.5,
		heatJPerK: 160,
		throttleC: 80,
		sockets: [socket('in', 'usb-c', ['power']), socket('out', 'display-micro', PICTURE, 2), usbA(3), net(), header()]
	}),
	row('board', {
		...full,
		...usual,
		id: 'board-module-4',
		name: 'Module on a carrier, 4 GB, two full-size HDMI ports',
		price: 98,
		memoryMb: 4096,
		idleW: 2.9,
		peakW: 8.2,
		surgeW: 12,
		brownOutV: 10.5,
		warnsV: null,
		wiredMbps: 1000,
		header3V3A: 0.6,
		hasClock: true,
		displayMhz: 297,
		decoders: USUAL,
		softwareMpixPerSec: 150,
		bareKPerW: 10,
		heatJPerK: 55,
		throttleC: 80,
		sockets: [
			socket('in', 'barrel', ['power']),
			socket('out', 'display', PICTURE, 2),
			usbA(2),
			net(),
			flat(),
			header(),
			fanHeader()
		]
	}),
	row('board', {
		...full,
		...usual,
		id: 'board-media-2',
		name: 'Media board, 2 GB, newer codecs',
		price: 55,
		memoryMb: 2048,
		idleW: 2.2,
		peakW: 6.4,
		surgeW: 9,
		wiredMbps: 1000,
		header3V3A: 0.5,
		displayMhz: 594,
		decoders: [
			dec('h264', 2160, 30),
			dec('h265', 2160, 60, 10),
			dec('vp9', 2160, 60, 10),
			dec('av1', 2160, 60, 10),
			dec('mpeg2', 1080, 60)
		],
		softwareMpixPerSec: 160,
		bareKPerW: 10,
		heatJPerK: 42,
		throttleC: 85,
		sockets: [
			socket('in', 'usb-c', ['power']),
			socket('out', 'display', PICTURE),
			usbA(4),
			socket('out', 'jack-4', ['sound', 'picture']),
			net(),
			flat(),
			header()
		]
	}),
	row('board', {
		...full,
		...fast,
		id: 'board-desk-8',
		name: 'Desktop-class board, 8 GB, no header',
		price: 149,
		memoryMb: 8192,
		idleW: 6,
		peakW: 17,
		surgeW: 26,
		brownOutV: 10.8,
		warnsV: null,
		hasClock: true,
		wiredMbps: 2500,
		usbTotalA: 3,
		header3V3A: 0,
		displayMhz: 594,
		decoders: [
			dec('h264', 2160, 60),
			dec('h265', 2160, 60, 10),
			dec('vp9', 2160, 60, 10),
			dec('av1', 2160, 60, 10),
			dec('mpeg2', 1080, 60)
		],
		softwareMpixPerSec: 900,
		bareKPerW: 3.2,
		heatJPerK: 180,
		throttleC: 95,
		sockets: [
			socket('in', 'barrel', ['power']),
			socket('out', 'display', PICTURE, 2),
			usbA(4),
			socket('out', 'jack-3', ['sound']),
			net(),
			fanHeader()
		]
	})
];
