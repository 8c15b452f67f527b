import type { Plug } from '../plugs';
import { draw, row, socket, type PartRow } from './make';

const LABEL = { sure: 'standard', source: 'Volts and amperes are on its label; IEC 62368-1 asks for them.' } as const;
const wall = socket('in', 'mains-wall', ['power'], 1, true);
/** A supply whose lead cannot be taken off. */
const fixed = (plug: Plug, lengthM: number, areaMm2: number) => ({
	lead: { lengthM, areaMm2 },
	sockets: [wall, socket('out', plug, ['power'], 1, true)]
});
const open = (plug: Plug, count = 1) => ({ lead: null, sockets: [wall, socket('out', plug, ['power'], count)] });

/** Supplies, and what carries an endpoint through a gap in the mains. */
export const supplies: readonly PartRow[] = [
	row('supply', {
		...LABEL,
		...fixed('usb-c', 1.5, 0.82),
		id: 'supply-5-3',
		name: 'Supply 5.1 V, 3 A, fixed USB-C cable',
		price: 9,
		volts: 5.1,
		amperes: 3,
		noLoadW: 0.08
	}),
	row('supply', {
		...LABEL,
		...fixed('micro-usb', 1.5, 0.52),
		id: 'supply-5-2a5',
		name: 'Supply 5.1 V, 2.5 A, fixed Micro-USB cable',
		price: 8,
		volts: 5.1,
		amperes: 2.5,
		noLoadW: 0.08
	}),
	row('supply', {
		...LABEL,
		...fixed('usb-c', 1.2, 1.0),
		id: 'supply-5-5',
		name: 'Supply 5.1 V, 5 A, fixed USB-C cable',
		price: 14,
		volts: 5.1,
		amperes: 5,
		noLoadW: 0.1
	}),
	row('supply', {
		...LABEL,
		...open('usb-a'),
		id: 'supply-5-1',
		name: 'Telephone charger 5 V, 1 A',
		price: 0,
		volts: 5,
		amperes: 1,
		noLoadW: 0.15
	}),
	row('supply', {
		...LABEL,
		...open('usb-a', 2),
		id: 'supply-5-2',
		name: 'Charger 5 V, 2.4 A, USB-A',
		price: 10,
		volts: 5,
		amperes: 2.4,
		noLoadW: 0.12
	}),
	row('supply', {
		...LABEL,
		...open('usb-c'),
		id: 'supply-5-3-open',
		name: 'Supply 5.1 V, 3 A, USB-C socket',
		price: 13,
		volts: 5.1,
		amperes: 3,
		noLoadW: 0.08
	}),
	row('supply', {
		...LABEL,
		lead: { lengthM: 0.2, areaMm2: 0.52 },
		sockets: [
			socket('in', 'network', ['power', 'data']),
			socket('out', 'usb-c', ['power'], 1, true),
			socket('out', 'network', ['data'], 1, true)
		],
		id: 'supply-poe-usb-c',
		name: 'Splitter for power over Ethernet, 5.1 V, 2.1 A, USB-C plug',
		price: 17,
		volts: 5.1,
		amperes: 2.1,
		noLoadW: 0.5,
		source:
			'A powered device of class 3 may take 12.95 W: IEEE 802.3, 33.2.6; such splitters pass on 80 to 85 % of it, typically. The switch, or an injector, must give it.'
	}),
	row('supply', {
		...LABEL,
		...fixed('barrel', 1.5, 0.75),
		id: 'supply-19-3',
		name: 'Supply 19 V, 3.4 A, fixed round plug',
		price: 19,
		volts: 19,
		amperes: 3.4,
		noLoadW: 0.15
	}),
	row('supply', {
		...LABEL,
		...fixed('barrel', 1.2, 0.75),
		id: 'supply-12-2',
		name: 'Supply 12 V, 2 A, fixed round plug',
		price: 11,
		volts: 12,
		amperes: 2,
		noLoadW: 0.1
	}),
	row('supply', {
		...LABEL,
		...fixed('barrel', 1.2, 0.75),
		id: 'supply-12-5',
		name: 'Supply 12 V, 5 A, fixed round plug',
		price: 21,
		volts: 12,
		amperes: 5,
		noLoadW: 0.15
	}),
	row('supply', {
		...LABEL,
		lead: null,
		sockets: [socket('in', 'mains-c14', ['power'], 1, true), socket('out', 'usb-a', ['power'], 4)],
		id: 'supply-5-8',
		name: 'Supply to build in, 5.1 V, 8 A',
		price: 24,
		volts: 5.1,
		amperes: 8,
		noLoadW: 0.3
	}),
	row('hold-up', {
		id: 'hold-cap',
		name: 'Supercapacitor hold-up, 25 F',
		price: 29,
		wattHours: 0.05,
		efficiency: 0.8,
		maxW: 15,
		draw: draw('header', 0.2, 0.2, 2.5, 6)
	}),
	row('hold-up', {
		id: 'hold-cell',
		name: 'Single-cell battery board, 3 Ah',
		price: 38,
		wattHours: 11,
		efficiency: 0.85,
		maxW: 15,
		draw: draw('header', 0.15, 0.15, 5, 6)
	}),
	row('hold-up', {
		id: 'hold-bank',
		name: 'Power bank that passes power through, 74 Wh',
		price: 42,
		wattHours: 74,
		efficiency: 0.8,
		maxW: 18
	}),
	row('hold-up', {
		id: 'hold-ups',
		name: 'Mains UPS, 150 Wh',
		price: 99,
		wattHours: 150,
		efficiency: 0.6,
		maxW: 300,
		draw: draw('mains', 5, 5, 8, 40)
	})
];
