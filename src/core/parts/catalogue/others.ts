import { draw, headerUse, row, socket, type PartRow } from './make';

const hubSockets = (count: number) => [
	socket('in', 'usb-a', ['data', 'power'], 1, true),
	socket('out', 'usb-a', ['data', 'power', 'touch'], count)
];
const usbIn = [socket('in', 'usb-a', ['data', 'power'], 1, true)];
const kit = (id: string, name: string, price: number, contains: Record<string, number>): PartRow =>
	row('kit', { id, name, price, contains: Object.entries(contains).map(([part, count]) => ({ part, count })) });

/** Network adapters, hubs, header add-ons, and kits that hold several parts at one price. */
export const others: readonly PartRow[] = [
	row('hub', {
		id: 'hub-plain-4',
		name: 'USB hub, four sockets, fed by the board',
		price: 8,
		ports: 4,
		powered: false,
		draw: draw('usb', 0.2, 0.3, 0.4),
		sockets: hubSockets(4)
	}),
	row('hub', {
		id: 'hub-powered-4',
		name: 'USB hub, four sockets, own supply 5 V, 3 A',
		price: 19,
		ports: 4,
		powered: true,
		draw: draw('mains', 0.4, 2, 16, 18),
		sockets: hubSockets(4)
	}),
	row('hub', {
		id: 'hub-powered-7',
		name: 'USB hub, seven sockets, own supply 12 V, 3 A',
		price: 32,
		ports: 7,
		powered: true,
		draw: draw('mains', 0.6, 3, 36, 40),
		sockets: hubSockets(7)
	}),
	row('add-on', {
		id: 'stacking-header',
		name: 'Stacking header, 40 pins',
		price: 3,
		does: 'Lifts an add-on and brings its pins through, so that another fits on top.'
	}),
	row('add-on', {
		id: 'clock-i2c',
		name: 'Clock with a coin cell, by I2C',
		price: 5,
		does: 'Keeps the time without power or network.',
		keepsTime: true,
		draw: draw('header', 0.01, 0.01, 0.02),
		header: headerUse({ i2c: [{ address: 0x68 }], milliamperes3V3: 3, passesThrough: true })
	}),
	row('add-on', {
		id: 'remote-eye',
		name: 'Eye for an infrared remote control',
		price: 2,
		does: 'Listens to a remote control.',
		draw: draw('header', 0.01, 0.01, 0.01),
		header: headerUse({
			movable: [{ what: 'eye', suggested: 18, pwm: false }],
			milliamperes3V3: 3,
			passesThrough: true
		})
	}),
	row('add-on', {
		id: 'push-button',
		name: 'Push button on two wires',
		price: 1,
		does: 'Asks for a clean shutdown, or for the next entry.',
		header: headerUse({ movable: [{ what: 'button', suggested: 3, pwm: false }], passesThrough: true })
	}),
	row('add-on', {
		id: 'relay-one',
		name: 'Relay for a small load, opto-isolated',
		price: 5,
		does: 'Switches an amplifier\u2019s trigger or a lamp at low voltage.',
		draw: draw('header', 0.02, 0.35, 0.4),
		header: headerUse({
			movable: [{ what: 'relay', suggested: 17, pwm: false }],
			milliamperes5V: 80,
			passesThrough: true
		})
	}),
	row('add-on', {
		id: 'socket-switched',
		name: 'Mains socket in a closed housing, switched at low voltage',
		price: 24,
		does: 'Gives mains to what is plugged into it while its line is high.',
		header: headerUse({
			movable: [{ what: 'socket', suggested: 27, pwm: false }],
			milliamperes3V3: 10,
			passesThrough: true
		})
	}),
	row('add-on', {
		id: 'strip-display',
		name: 'Small character display, by I2C',
		price: 7,
		does: 'Shows a title and the time.',
		draw: draw('header', 0.05, 0.1, 0.15),
		header: headerUse({ i2c: [{ address: 0x27 }], milliamperes5V: 30, passesThrough: true })
	}),
	row('add-on', {
		id: 'serial-gps',
		name: 'Satellite clock receiver, by serial line',
		price: 17,
		does: 'Takes exact time from the sky.',
		draw: draw('header', 0.1, 0.15, 0.17),
		header: headerUse({ uart: true, gpio: [4], milliamperes3V3: 50, passesThrough: true })
	}),
	row('add-on', {
		id: 'spi-panel',
		name: 'Little colour panel, by SPI',
		price: 13,
		does: 'A screen of two inches beside the box.',
		draw: draw('header', 0.1, 0.25, 0.3),
		header: headerUse({
			spi: [{ bus: 0, select: 0 }],
			gpio: [24, 25],
			milliamperes3V3: 80,
			passesThrough: true
		})
	}),
	row('network-adapter', {
		id: 'net-usb-1000',
		name: 'USB Ethernet adapter, 1000 Mbit/s',
		price: 14,
		wiredMbps: 1000,
		radio: false,
		draw: draw('usb', 0.5, 0.9, 1.3),
		sockets: usbIn
	}),
	row('network-adapter', {
		id: 'net-usb-100',
		name: 'USB Ethernet adapter, 100 Mbit/s',
		price: 9,
		wiredMbps: 100,
		radio: false,
		draw: draw('usb', 0.3, 0.5, 0.8),
		sockets: usbIn
	}),
	row('network-adapter', {
		id: 'net-usb-wifi',
		name: 'USB Wi-Fi adapter, both bands, two antennas',
		price: 22,
		wiredMbps: null,
		radio: true,
		radioStreams: 2,
		source: 'Typical of the class. Whether the image has its driver and firmware, the probe report says.',
		draw: draw('usb', 0.5, 1.4, 2.3),
		sockets: usbIn
	}),
	row('add-on', {
		id: 'bluetooth-usb',
		name: 'Bluetooth adapter on USB',
		price: 9,
		does: 'Phones send their sound to it, as the receiving link sets it up.',
		bluetoothDbm: 4,
		draw: draw('usb', 0.1, 0.25, 0.4),
		sockets: usbIn
	}),
	row('add-on', {
		id: 'knob-rotary',
		name: 'Rotary knob with a push, on three wires',
		price: 3,
		does: 'Turns and pushes are three lines of the header. Nothing here acts on them yet.',
		header: headerUse({
			movable: [
				{ what: 'knob, one way', suggested: 5, pwm: false },
				{ what: 'knob, other way', suggested: 6, pwm: false },
				{ what: 'knob, pushed', suggested: 13, pwm: false }
			],
			passesThrough: true
		})
	}),
	row('add-on', {
		id: 'buttons-four',
		name: 'Four push buttons on a small board',
		price: 4,
		does: 'Four lines of the header. Nothing here acts on them yet.',
		header: headerUse({
			movable: [16, 19, 20, 26].map((suggested, n) => ({ what: `button ${n + 1}`, suggested, pwm: false })),
			passesThrough: true
		})
	}),
	kit('kit-small', 'Kit: small board, supply, card, adapters', 35, {
		'board-small-512': 1,
		'supply-5-2a5': 1,
		'card-16': 1,
		'adapter-mini-display': 1,
		'adapter-otg': 1
	}),
	kit('kit-full-4', 'Kit: full-size board 4 GB, supply, card, case, cooler, lead', 89, {
		'board-full-4': 1,
		'supply-5-3': 1,
		'card-32': 1,
		'case-vented': 1,
		'cooler-stick': 1,
		'lead-micro-display-2': 1
	}),
	kit('kit-fast-8', 'Development kit: fast board 8 GB, supply, card, case, cooler, fan, leads', 155, {
		'board-fast-8': 1,
		'supply-5-5': 1,
		'card-64': 1,
		'case-tall': 1,
		'cooler-tower': 1,
		'fan-socket-pwm': 1,
		'lead-micro-display-2': 2
	})
];
