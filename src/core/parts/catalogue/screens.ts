import { draw, headerUse, row, socket, type PartRow } from './make';

const display = (count = 1) => socket('in', 'display', ['picture', 'sound'], count);
const vga = socket('in', 'vga', ['picture']);
const touchUsb = socket('in', 'usb-b', ['touch', 'power']);
const plain = { refreshHz: 60, speakers: false, touch: false, cutsEdges: false };
const PIXELS = {
	widthPx: { sure: 'standard', source: 'Its own EDID; CTA-861 or VESA DMT.' },
	heightPx: { sure: 'standard', source: 'Its own EDID; CTA-861 or VESA DMT.' }
} as const;

/** Screens by kind, and the resistor ladders that feed old ones from the header. */
export const screens: readonly PartRow[] = [
	row('screen', {
		...plain,
		id: 'screen-43-analogue',
		name: 'Old 4:3 analogue monitor, 17 in, 1280 × 1024',
		price: 0,
		widthPx: 1280,
		heightPx: 1024,
		diagonalIn: 17,
		draw: draw('mains', 1, 28, 36, 60),
		sockets: [vga]
	}),
	row('screen', {
		...plain,
		id: 'screen-tube',
		name: 'Tube television with a yellow socket, 720 × 576',
		price: 0,
		widthPx: 720,
		heightPx: 576,
		refreshHz: 50,
		diagonalIn: 21,
		speakers: true,
		cutsEdges: true,
		panel: 'tube',
		peakCdM2: 100,
		draw: draw('mains', 2, 60, 85, 200),
		sockets: [socket('in', 'composite', ['picture']), socket('in', 'rca-pair', ['sound'])]
	}),
	row('screen', {
		...plain,
		id: 'screen-720',
		name: 'Small television, 24 in, 720p',
		price: 90,
		widthPx: 1366,
		heightPx: 768,
		diagonalIn: 24,
		speakers: true,
		draw: draw('mains', 0.5, 25, 35, 50),
		sockets: [display(), vga, socket('in', 'jack-3', ['sound'])],
		figures: PIXELS
	}),
	row('screen', {
		...plain,
		id: 'screen-1080-cuts',
		name: 'Television, 40 in, 1080p, cuts its edges',
		price: 180,
		widthPx: 1920,
		heightPx: 1080,
		diagonalIn: 40,
		speakers: true,
		cutsEdges: true,
		draw: draw('mains', 0.5, 55, 80, 110),
		sockets: [display(2)],
		figures: PIXELS
	}),
	row('screen', {
		...plain,
		id: 'screen-1080',
		name: 'Monitor, 24 in, 1080p',
		price: 110,
		widthPx: 1920,
		heightPx: 1080,
		diagonalIn: 24,
		draw: draw('mains', 0.4, 18, 25, 40),
		sockets: [display(), socket('in', 'dvi', ['picture'])],
		figures: PIXELS
	}),
	row('screen', {
		...plain,
		id: 'screen-2160',
		name: 'Television, 55 in, 2160p',
		price: 420,
		widthPx: 3840,
		heightPx: 2160,
		diagonalIn: 55,
		speakers: true,
		draw: draw('mains', 0.5, 95, 150, 210),
		sockets: [display(3), socket('out', 'optical', ['sound'])],
		figures: PIXELS
	}),
	row('screen', {
		...plain,
		id: 'screen-bar',
		name: 'Bar screen, 8.8 in, 1920 × 480',
		price: 78,
		widthPx: 1920,
		heightPx: 480,
		diagonalIn: 8.8,
		draw: draw('usb', 0.3, 3, 4, 5),
		sockets: [socket('in', 'display-mini', ['picture', 'sound']), socket('in', 'usb-c', ['power'])]
	}),
	row('screen', {
		...plain,
		id: 'screen-touch-7',
		name: 'Touch panel, 7 in, 800 × 480, flat cable',
		price: 66,
		widthPx: 800,
		heightPx: 480,
		diagonalIn: 7,
		touch: true,
		draw: draw('header', 0.4, 2, 2.3, 3),
		header: headerUse({ milliamperes5V: 400, i2c: [{ address: 0x38 }], passesThrough: true }),
		sockets: [socket('in', 'flat-display', ['picture', 'touch'])]
	}),
	row('screen', {
		...plain,
		id: 'screen-touch-10',
		name: 'Touch panel, 10 in, 1280 × 800, touch by USB',
		price: 105,
		widthPx: 1280,
		heightPx: 800,
		diagonalIn: 10.1,
		touch: true,
		draw: draw('usb', 0.5, 4, 5, 6),
		sockets: [display(), touchUsb]
	}),
	row('screen', {
		...plain,
		id: 'screen-portrait',
		name: 'Portrait screen, 32 in, 1080 × 1920',
		price: 260,
		widthPx: 1080,
		heightPx: 1920,
		diagonalIn: 32,
		speakers: true,
		draw: draw('mains', 0.5, 45, 60, 90),
		sockets: [display(), socket('in', 'dvi', ['picture'])],
		figures: PIXELS
	}),
	row('screen', {
		...plain,
		id: 'projector-1080',
		name: 'Projector, 1080p',
		price: 380,
		widthPx: 1920,
		heightPx: 1080,
		diagonalIn: 90,
		speakers: true,
		panel: 'projector',
		peakCdM2: 100,
		draw: draw('mains', 0.5, 190, 240, 320),
		sockets: [display(2), vga]
	}),
	row('video-adapter', {
		id: 'ladder-666',
		name: 'Resistor-ladder analogue video adapter, 6 bits a colour',
		price: 12,
		bitsPerColour: 6,
		maxPixelClockMhz: 75,
		resistorsOhm: [510, 1000, 2000, 3900, 8200, 16_000],
		tolerancePercent: 1,
		header: headerUse({ displayBits: 18, milliamperes3V3: 60 }),
		draw: draw('header', 0.1, 0.15, 0.2),
		sockets: [socket('in', 'header', ['picture', 'power', 'data', 'sound']), socket('out', 'vga', ['picture'])]
	}),
	row('video-adapter', {
		id: 'ladder-888',
		name: 'Resistor-ladder analogue video adapter, 8 bits a colour',
		price: 19,
		bitsPerColour: 8,
		maxPixelClockMhz: 75,
		resistorsOhm: [500, 1000, 2000, 4000, 8000, 16_000, 32_000, 64_000],
		tolerancePercent: 0.5,
		header: headerUse({ displayBits: 24, milliamperes3V3: 80 }),
		draw: draw('header', 0.1, 0.25, 0.3),
		sockets: [socket('in', 'header', ['picture', 'power', 'data', 'sound']), socket('out', 'vga', ['picture'])]
	})
];
