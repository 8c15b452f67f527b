import type { Cargo, Plug } from '../plugs';
import { row, type PartRow } from './make';

interface Spec {
	id: string;
	name: string;
	price: number;
	a: [Plug, male?: boolean];
	b: [Plug, male?: boolean];
	carries: Cargo[];
	lengthM?: number;
	areaMm2?: number;
	lossDb?: number;
	maxPixelClockMhz?: number;
	source?: string;
}
const lead = ({ a, b, lengthM = 0, areaMm2, lossDb, maxPixelClockMhz, source, ...rest }: Spec): PartRow =>
	row('lead', {
		...rest,
		ends: [
			{ plug: a[0], male: a[1] ?? true },
			{ plug: b[0], male: b[1] ?? true }
		],
		lengthM,
		areaMm2: areaMm2 ?? null,
		lossDb: lossDb ?? null,
		maxPixelClockMhz: maxPixelClockMhz ?? null,
		...(source ? { source } : {})
	});

const AWG = 'Cross-section from the AWG number printed on it: ASTM B258.';
const power = (
	id: string,
	name: string,
	price: number,
	from: Plug,
	to: Plug,
	lengthM: number,
	areaMm2: number
): PartRow => lead({ id, name, price, a: [from], b: [to], carries: ['power', 'data'], lengthM, areaMm2, source: AWG });

/**
 * HDMI cables of category 2 are tried to 340 MHz; long ones without that mark are taken for less. Source: HDMI 1.4b, clause 4.2.6.
 * DVI with one link ends at 165 MHz. Source: DVI 1.0, clause 2.2.8. Leads by what they carry, how long and how thick, and the small adapters that are always missing. */
export const leads: readonly PartRow[] = [
	power('lead-a-micro-thin-2', 'Thin USB-A to Micro-USB cable, 2 m, 28 AWG', 3, 'usb-a', 'micro-usb', 2, 0.081),
	power('lead-a-micro-1', 'USB-A to Micro-USB cable, 1 m, 24 AWG', 5, 'usb-a', 'micro-usb', 1, 0.205),
	power('lead-a-micro-thick', 'Thick USB-A to Micro-USB cable, 0.5 m, 20 AWG', 6, 'usb-a', 'micro-usb', 0.5, 0.519),
	power('lead-a-c-thin-2', 'Thin USB-A to USB-C cable, 2 m, 28 AWG', 4, 'usb-a', 'usb-c', 2, 0.081),
	power('lead-a-c-1', 'USB-A to USB-C cable, 1 m, 22 AWG', 6, 'usb-a', 'usb-c', 1, 0.326),
	power('lead-a-c-thick', 'Thick USB-A to USB-C cable, 0.5 m, 20 AWG', 7, 'usb-a', 'usb-c', 0.5, 0.519),
	power('lead-c-c-2', 'USB-C to USB-C cable, 2 m, 22 AWG', 9, 'usb-c', 'usb-c', 2, 0.326),
	power('lead-c-c-1', 'USB-C to USB-C cable, 1 m, 20 AWG', 9, 'usb-c', 'usb-c', 1, 0.519),
	power('lead-c-micro-1', 'USB-C to Micro-USB cable, 1 m, 22 AWG', 7, 'usb-c', 'micro-usb', 1, 0.326),
	lead({
		id: 'adapter-micro-c',
		name: 'Adapter, Micro-USB socket to USB-C plug',
		price: 3,
		a: ['micro-usb', false],
		b: ['usb-c'],
		carries: ['power', 'data'],
		areaMm2: 0.5
	}),
	lead({
		id: 'adapter-c-micro',
		name: 'Adapter, USB-C socket to Micro-USB plug',
		price: 3,
		a: ['usb-c', false],
		b: ['micro-usb'],
		carries: ['power', 'data'],
		areaMm2: 0.5
	}),
	lead({
		id: 'lead-barrel-ext',
		name: 'Round power plug extension, 2 m, 18 AWG',
		price: 5,
		a: ['barrel', false],
		b: ['barrel'],
		carries: ['power'],
		lengthM: 2,
		areaMm2: 0.823,
		source: AWG
	}),
	lead({
		id: 'adapter-otg',
		name: 'Adapter, Micro-USB plug to USB-A socket',
		price: 3,
		a: ['micro-usb'],
		b: ['usb-a', false],
		carries: ['power', 'data', 'touch']
	}),
	lead({
		id: 'lead-usb-b',
		name: 'USB-A to USB-B cable, 1.5 m',
		price: 5,
		a: ['usb-a'],
		b: ['usb-b'],
		carries: ['power', 'data', 'touch'],
		lengthM: 1.5,
		areaMm2: 0.205
	}),
	lead({
		id: 'lead-usb-ext',
		name: 'USB-A extension, 1 m',
		price: 4,
		a: ['usb-a'],
		b: ['usb-a', false],
		carries: ['power', 'data', 'touch'],
		lengthM: 1,
		areaMm2: 0.205
	}),
	lead({
		id: 'lead-display-2',
		name: 'HDMI cable, 2 m',
		price: 7,
		a: ['display'],
		b: ['display'],
		maxPixelClockMhz: 340,
		carries: ['picture', 'sound'],
		lengthM: 2
	}),
	lead({
		id: 'lead-display-10',
		name: 'HDMI cable, 10 m',
		price: 24,
		a: ['display'],
		b: ['display'],
		maxPixelClockMhz: 165,
		carries: ['picture', 'sound'],
		lengthM: 10
	}),
	lead({
		id: 'lead-micro-display-2',
		name: 'Micro HDMI to HDMI cable, 2 m',
		price: 8,
		a: ['display-micro'],
		b: ['display'],
		maxPixelClockMhz: 340,
		carries: ['picture', 'sound'],
		lengthM: 2
	}),
	lead({
		id: 'lead-mini-display-2',
		name: 'Mini HDMI to HDMI cable, 2 m',
		price: 7,
		a: ['display-mini'],
		b: ['display'],
		maxPixelClockMhz: 340,
		carries: ['picture', 'sound'],
		lengthM: 2
	}),
	lead({
		id: 'adapter-micro-display',
		name: 'Adapter, micro HDMI plug to HDMI socket',
		price: 4,
		a: ['display-micro'],
		b: ['display', false],
		maxPixelClockMhz: 340,
		carries: ['picture', 'sound']
	}),
	lead({
		id: 'adapter-mini-display',
		name: 'Adapter, mini HDMI plug to HDMI socket',
		price: 4,
		a: ['display-mini'],
		b: ['display', false],
		maxPixelClockMhz: 340,
		carries: ['picture', 'sound']
	}),
	lead({
		id: 'lead-display-dvi',
		name: 'HDMI to DVI cable, 2 m',
		price: 8,
		a: ['display'],
		b: ['dvi'],
		maxPixelClockMhz: 165,
		carries: ['picture'],
		lengthM: 2
	}),
	lead({
		id: 'adapter-display-vga',
		name: 'Active adapter, HDMI plug to VGA socket',
		price: 12,
		a: ['display'],
		b: ['vga', false],
		maxPixelClockMhz: 165,
		carries: ['picture']
	}),
	lead({
		id: 'lead-vga-2',
		name: 'VGA cable, 2 m',
		price: 6,
		a: ['vga'],
		b: ['vga'],
		maxPixelClockMhz: 205,
		carries: ['picture'],
		lengthM: 2
	}),
	lead({
		id: 'lead-jack4-av',
		name: 'Four-pole jack to yellow, red, white: the video plug, 1.5 m',
		price: 5,
		a: ['jack-4'],
		b: ['composite'],
		carries: ['picture'],
		lengthM: 1.5
	}),
	lead({
		id: 'lead-jack4-rca',
		name: 'Four-pole jack to yellow, red, white: the sound plugs, 1.5 m',
		price: 5,
		a: ['jack-4'],
		b: ['rca-pair'],
		carries: ['sound'],
		lengthM: 1.5
	}),
	lead({
		id: 'lead-jack-rca',
		name: 'Stereo jack to red and white, 1.5 m',
		price: 5,
		a: ['jack-3'],
		b: ['rca-pair'],
		carries: ['sound'],
		lengthM: 1.5
	}),
	lead({
		id: 'lead-jack-jack',
		name: 'Stereo jack to stereo jack, 1.5 m',
		price: 4,
		a: ['jack-3'],
		b: ['jack-3'],
		carries: ['sound'],
		lengthM: 1.5
	}),
	lead({
		id: 'adapter-jack4-jack3',
		name: 'Adapter, four-pole jack to stereo socket',
		price: 3,
		a: ['jack-4'],
		b: ['jack-3', false],
		carries: ['sound']
	}),
	lead({
		id: 'lead-rca-2',
		name: 'Red and white audio cable, 2 m',
		price: 6,
		a: ['rca-pair'],
		b: ['rca-pair'],
		carries: ['sound'],
		lengthM: 2
	}),
	lead({
		id: 'lead-optical-3',
		name: 'Optical audio cable, 3 m',
		price: 7,
		a: ['optical'],
		b: ['optical'],
		carries: ['sound'],
		lengthM: 3
	}),
	lead({
		id: 'lead-coax-2',
		name: 'Coaxial digital audio cable, 2 m',
		price: 7,
		a: ['coax'],
		b: ['coax'],
		carries: ['sound'],
		lengthM: 2
	}),
	lead({
		id: 'lead-speaker-5',
		name: 'Speaker wire, pair of 5 m, 1.5 mm²',
		price: 9,
		a: ['speaker-wire'],
		b: ['speaker-wire'],
		carries: ['sound'],
		lengthM: 5,
		areaMm2: 1.5
	}),
	lead({
		id: 'lead-net-2',
		name: 'Ethernet cable, 2 m',
		price: 3,
		a: ['network'],
		b: ['network'],
		carries: ['data'],
		lengthM: 2
	}),
	lead({
		id: 'lead-net-15',
		name: 'Ethernet cable, 15 m',
		price: 9,
		a: ['network'],
		b: ['network'],
		carries: ['data'],
		lengthM: 15
	}),
	lead({
		id: 'lead-aerial-3',
		name: 'Aerial lead, push-on both ends, 3 m',
		price: 6,
		a: ['aerial'],
		b: ['aerial', false],
		carries: ['aerial'],
		lengthM: 3,
		lossDb: 0.8
	}),
	lead({
		id: 'lead-f-20',
		name: 'Outdoor aerial lead, screw-on both ends, 20 m',
		price: 19,
		a: ['f'],
		b: ['f'],
		carries: ['aerial'],
		lengthM: 20,
		lossDb: 3.2
	}),
	lead({
		id: 'lead-f-2',
		name: 'Aerial lead, screw-on both ends, 2 m',
		price: 6,
		a: ['f'],
		b: ['f'],
		carries: ['aerial'],
		lengthM: 2,
		lossDb: 0.4
	}),
	lead({
		id: 'adapter-f-aerial',
		name: 'Adapter, screw-on socket to push-on plug',
		price: 2,
		a: ['f', false],
		b: ['aerial'],
		carries: ['aerial'],
		lossDb: 0.2
	}),
	lead({
		id: 'adapter-aerial-mcx',
		name: 'Adapter lead, push-on socket to tiny MCX plug',
		price: 5,
		a: ['aerial', false],
		b: ['mcx'],
		carries: ['aerial'],
		lengthM: 0.15,
		lossDb: 0.3
	}),
	lead({
		id: 'adapter-f-mcx',
		name: 'Adapter lead, screw-on socket to tiny MCX plug',
		price: 5,
		a: ['f', false],
		b: ['mcx'],
		carries: ['aerial'],
		lengthM: 0.15,
		lossDb: 0.3
	}),
	lead({
		id: 'lead-flat-display',
		name: 'Flat display cable, 0.2 m',
		price: 3,
		a: ['flat-display'],
		b: ['flat-display'],
		carries: ['picture', 'touch'],
		lengthM: 0.2
	})
];
