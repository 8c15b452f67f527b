import { draw, row, socket, type PartRow } from './make';

const CAPACITY = { capacityGb: { sure: 'standard', source: 'Printed on it, in decimal gigabytes.' } } as const;
const CLASS = {
	writeMBps: { sure: 'standard', source: 'The speed class on it: SD Physical Layer 9.10, 4.13.' }
} as const;
const usbPlug = [socket('in', 'usb-a', ['data', 'power'], 1, true)];

/** Cards, sticks, drives and the servers that hold the rest. */
export const stores: readonly PartRow[] = [
	...(
		[
			['card-8', 'Memory card 8 GB, class 4', 5, 8, 4, null],
			['card-16', 'Memory card 16 GB, class 10', 6, 16, 10, null],
			['card-32', 'Memory card 32 GB, A1 class', 8, 32, 10, null],
			['card-64', 'Memory card 64 GB, A1 class', 11, 64, 10, null],
			['card-128', 'Memory card 128 GB, A2 class', 17, 128, 10, null],
			['card-32-hard', 'Memory card 32 GB, high endurance', 14, 32, 20, 23],
			['card-64-hard', 'Memory card 64 GB, high endurance', 19, 64, 20, 46],
			['emmc-32', 'eMMC module 32 GB, in an adapter for the card slot', 21, 32, 60, 40]
		] as const
	).map(([id, name, price, capacityGb, writeMBps, enduranceTb]) =>
		row('card', { id, name, price, capacityGb, writeMBps, enduranceTb, figures: { ...CAPACITY, ...CLASS } })
	),
	row('drive', {
		id: 'stick-64',
		name: 'Memory stick 64 GB',
		price: 9,
		capacityGb: 64,
		figures: CAPACITY,
		draw: draw('usb', 0.1, 0.4, 1),
		sockets: usbPlug
	}),
	row('drive', {
		id: 'drive-ssd-500',
		name: 'USB drive without moving parts, 500 GB',
		price: 49,
		capacityGb: 500,
		figures: CAPACITY,
		draw: draw('usb', 0.6, 2, 4, 4.5),
		sockets: usbPlug
	}),
	row('drive', {
		id: 'drive-nvme-256',
		name: 'NVMe drive 256 GB in a USB case',
		price: 46,
		capacityGb: 256,
		figures: CAPACITY,
		draw: draw('usb', 0.8, 2.6, 4.3, 5),
		sockets: usbPlug
	}),
	row('drive', {
		id: 'drive-disk-2000',
		name: 'Spinning disk fed by USB, 2 TB',
		price: 72,
		capacityGb: 2000,
		figures: CAPACITY,
		draw: draw('usb', 0.8, 2.2, 3.5, 5),
		sockets: usbPlug
	}),
	row('drive', {
		id: 'drive-disk-8000',
		name: 'Spinning disk with its own supply, 8 TB',
		price: 165,
		capacityGb: 8000,
		figures: CAPACITY,
		draw: draw('mains', 4, 7, 10, 24),
		sockets: usbPlug
	}),
	row('file-server', {
		id: 'server-small',
		name: 'Small file server, one disk',
		price: 140,
		mbps: 450,
		draw: draw('mains', 6, 11, 16, 30),
		sockets: [socket('in', 'network', ['data'])]
	}),
	row('file-server', {
		id: 'server-four',
		name: 'File server, four disks',
		price: 420,
		mbps: 900,
		draw: draw('mains', 18, 32, 48, 95),
		sockets: [socket('in', 'network', ['data'])]
	}),
	row('file-server', {
		id: 'server-pc',
		name: 'A computer that shares a folder',
		price: 0,
		mbps: 400,
		draw: draw('mains', 25, 35, 90, 120),
		sockets: [socket('in', 'network', ['data'])]
	})
];
