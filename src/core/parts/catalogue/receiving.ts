import type { Plug } from '../plugs';
import { draw, headerUse, row, socket, type PartRow } from './make';

const usbTuner = (plug: Plug) => [socket('in', 'usb-a', ['data', 'power'], 1, true), socket('in', plug, ['aerial'])];

/** Tuners, antennas and what shares them out. */
export const receiving: readonly PartRow[] = [
	row('tuner', {
		id: 'tuner-usb-t2',
		name: 'USB tuner, terrestrial and cable (T, T2, C)',
		price: 32,
		systems: ['T', 'T2', 'C'],
		tuners: 1,
		draw: draw('usb', 0.4, 1.4, 1.8),
		sockets: usbTuner('mcx')
	}),
	row('tuner', {
		id: 'tuner-usb-t',
		name: 'USB tuner, terrestrial, first generation (T)',
		price: 14,
		systems: ['T'],
		tuners: 1,
		draw: draw('usb', 0.3, 1.1, 1.4),
		sockets: usbTuner('mcx')
	}),
	row('tuner', {
		id: 'tuner-usb-t2-two',
		name: 'USB tuner, two at once (T, T2, C)',
		price: 74,
		systems: ['T', 'T2', 'C'],
		tuners: 2,
		draw: draw('usb', 0.8, 2.3, 2.5),
		sockets: usbTuner('aerial')
	}),
	row('tuner', {
		id: 'tuner-usb-s2',
		name: 'USB tuner, satellite (S, S2), own supply',
		price: 68,
		systems: ['S', 'S2'],
		tuners: 1,
		draw: draw('mains', 2, 9, 14, 18),
		sockets: [socket('in', 'usb-b', ['data']), socket('in', 'f', ['aerial'])]
	}),
	row('tuner', {
		id: 'tuner-usb-atsc',
		name: 'USB tuner, North American (ATSC)',
		price: 45,
		systems: ['ATSC'],
		tuners: 1,
		draw: draw('usb', 0.5, 1.5, 1.9),
		sockets: usbTuner('f')
	}),
	row('tuner', {
		id: 'tuner-header-t2',
		name: 'Header tuner, terrestrial and cable (T, T2, C)',
		price: 39,
		systems: ['T', 'T2', 'C'],
		tuners: 1,
		draw: draw('header', 0.4, 1.2, 1.5),
		header: headerUse({
			spi: [{ bus: 0, select: 0 }],
			i2c: [{ address: 0x2a }],
			gpio: [22, 23],
			milliamperes5V: 300,
			idMemory: true
		}),
		sockets: [socket('in', 'header', ['data', 'power', 'sound', 'picture']), socket('in', 'mcx', ['aerial'])]
	}),
	row('antenna', {
		id: 'antenna-whip',
		name: 'Little whip on a magnet foot',
		price: 4,
		gainDbi: -5,
		outdoor: false,
		sockets: [socket('out', 'mcx', ['aerial'], 1, true)]
	}),
	row('antenna', {
		id: 'antenna-indoor',
		name: 'Flat indoor antenna',
		price: 14,
		gainDbi: 2,
		outdoor: false,
		sockets: [socket('out', 'aerial', ['aerial'], 1, true)]
	}),
	row('antenna', {
		id: 'antenna-attic',
		name: 'Short antenna under the roof, 8 elements',
		price: 24,
		gainDbi: 9,
		outdoor: false,
		sockets: [socket('out', 'f', ['aerial'])]
	}),
	row('antenna', {
		id: 'antenna-outdoor',
		name: 'Outdoor antenna, 20 elements',
		price: 46,
		gainDbi: 14,
		outdoor: true,
		sockets: [socket('out', 'f', ['aerial'])]
	}),
	row('antenna', {
		id: 'antenna-dish',
		name: 'Satellite dish, 80 cm, with its converter',
		price: 75,
		gainDbi: 37,
		outdoor: true,
		sockets: [socket('out', 'f', ['aerial'])]
	}),
	row('splitter', {
		id: 'splitter-2',
		name: 'Two-way splitter',
		price: 5,
		ways: 2,
		lossDb: 3.8,
		sockets: [socket('in', 'f', ['aerial']), socket('out', 'f', ['aerial'], 2)]
	}),
	row('splitter', {
		id: 'splitter-4',
		name: 'Four-way splitter',
		price: 8,
		ways: 4,
		lossDb: 7.6,
		sockets: [socket('in', 'f', ['aerial']), socket('out', 'f', ['aerial'], 4)]
	})
];
