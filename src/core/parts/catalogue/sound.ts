import type { Playback, SampleFormat } from '../schema';
import { draw, headerUse, row, socket, type PartRow } from './make';

const takes = (ratesHz: number[], formats: SampleFormat[], channels: number[] = [2]): Playback => ({
	ratesHz,
	formats,
	channels
});
const TO_48 = [44100, 48000];
const TO_96 = [...TO_48, 88200, 96000];
const TO_192 = [...TO_96, 176400, 192000];
const TO_384 = [...TO_192, 352800, 384000];
const usb = [socket('in', 'usb-a', ['data', 'power'], 1, true), socket('out', 'jack-3', ['sound'])];
const usbB = [socket('in', 'usb-b', ['data', 'power']), socket('out', 'rca-pair', ['sound'])];
const onHeader = socket('in', 'header', ['data', 'power', 'sound']);
/** Sound over the header takes four lines, and most carry the identifying memory and are set up over I2C. */
const i2s = (address: number, milliamperes5V: number, passesThrough = false) =>
	headerUse({ i2s: true, i2c: [{ address }], milliamperes5V, milliamperes3V3: 40, idMemory: true, passesThrough });

/** Ways out for sound, and what makes it loud. */
export const sound: readonly PartRow[] = [
	row('converter', {
		id: 'conv-usb-16',
		name: 'USB converter, 16 bit, 48 kHz only',
		price: 7,
		joint: 'usb',
		playback: takes([48000], ['S16_LE']),
		fullScaleVrms: 1.1,
		readySec: 0.8,
		volume: { name: 'PCM', lowestDb: -45, startDb: 0 },
		draw: draw('usb', 0.25, 0.36, 0.45),
		sockets: usb
	}),
	row('converter', {
		id: 'conv-usb-96',
		name: 'USB converter, 24 bit, to 96 kHz',
		price: 29,
		joint: 'usb',
		playback: takes(TO_96, ['S16_LE', 'S24_3LE']),
		fullScaleVrms: 2,
		readySec: 1.1,
		volume: { name: 'Master', lowestDb: -60, startDb: -12 },
		draw: draw('usb', 0.4, 0.6, 0.75, 1.2),
		sockets: usbB
	}),
	row('converter', {
		id: 'conv-usb-192',
		name: 'USB converter, 32 bit, to 384 kHz',
		price: 94,
		joint: 'usb',
		playback: takes(TO_384, ['S16_LE', 'S24_3LE', 'S32_LE']),
		fullScaleVrms: 2.1,
		readySec: 1.4,
		volume: null,
		draw: draw('usb', 0.9, 1.3, 1.6, 2.2),
		sockets: usbB
	}),
	row('converter', {
		id: 'conv-usb-71',
		name: 'USB converter, eight channels, 48 kHz',
		price: 24,
		joint: 'usb',
		playback: takes(TO_48, ['S16_LE'], [2, 6, 8]),
		fullScaleVrms: 1,
		readySec: 1.2,
		volume: { name: 'Speaker', lowestDb: -60, startDb: -10 },
		draw: draw('usb', 0.5, 0.8, 1, 1.3),
		sockets: usb
	}),
	row('converter', {
		id: 'conv-usb-balanced',
		name: 'USB converter with balanced outputs, 24 bit, to 192 kHz',
		price: 118,
		joint: 'usb',
		playback: takes(TO_192, ['S16_LE', 'S32_LE']),
		fullScaleVrms: 4.1,
		readySec: 1.4,
		volume: null,
		draw: draw('usb', 0.9, 1.6, 2.2, 2.4),
		sockets: [socket('in', 'usb-b', ['data', 'power']), socket('out', 'xlr', ['sound'], 2, true)]
	}),
	row('converter', {
		id: 'conv-header-192',
		name: 'Header converter, 32 bit, to 192 kHz',
		price: 34,
		joint: 'header',
		playback: takes(TO_192, ['S16_LE', 'S24_LE', 'S32_LE']),
		fullScaleVrms: 2.1,
		readySec: 0.4,
		volume: { name: 'Digital', lowestDb: -103, startDb: 0 },
		draw: draw('header', 0.15, 0.3, 0.44),
		header: i2s(0x4d, 60),
		sockets: [onHeader, socket('out', 'rca-pair', ['sound'])]
	}),
	row('converter', {
		id: 'conv-header-amp',
		name: 'Header converter with amplifier, 2 × 25 W',
		price: 46,
		amplifier: {
			sensitivityVrms: 1,
			ratedW: 25,
			ratedOhm: 4,
			leastOhm: 4,
			channels: 2,
			bridged: true,
			feed: { lowestV: 12, highestV: 20 },
			draw: draw('mains', 0.8, 6, 56, 60)
		},
		joint: 'header',
		playback: takes(TO_192, ['S16_LE', 'S32_LE']),
		fullScaleVrms: 1,
		readySec: 0.4,
		volume: { name: 'Digital', lowestDb: -103, startDb: -20 },
		draw: draw('header', 0.3, 0.5, 0.8),
		header: { ...i2s(0x4b, 120), gpio: [22] },
		sockets: [onHeader, socket('in', 'barrel', ['power']), socket('out', 'speaker-wire', ['sound'], 2)]
	}),
	row('converter', {
		id: 'conv-header-small',
		name: 'Small header converter by single wires, 16 bit',
		price: 9,
		joint: 'header',
		playback: takes(TO_96, ['S16_LE', 'S32_LE']),
		fullScaleVrms: 2,
		readySec: 0.3,
		volume: null,
		draw: draw('header', 0.05, 0.08, 0.1),
		header: headerUse({ i2s: true, milliamperes3V3: 25, passesThrough: true }),
		sockets: [onHeader, socket('out', 'jack-3', ['sound'])]
	}),
	row('converter', {
		id: 'conv-optical',
		name: 'Header card with optical and coaxial out',
		price: 31,
		joint: 'optical',
		playback: takes([32000, ...TO_192], ['S16_LE', 'S24_LE']),
		fullScaleVrms: 2,
		readySec: 0.3,
		volume: null,
		draw: draw('header', 0.2, 0.35, 0.44),
		header: i2s(0x3b, 60),
		figures: {
			playback: {
				sure: 'typical',
				source: 'Linux 6.1, sound/soc/codecs/wm8804.c: its transmitter takes plain samples and frames them itself.'
			}
		},
		sockets: [onHeader, socket('out', 'optical', ['sound']), socket('out', 'coax', ['sound'])]
	}),
	row('converter', {
		id: 'conv-usb-optical',
		name: 'USB to optical and coaxial out',
		price: 22,
		joint: 'optical',
		playback: takes(TO_96, ['S16_LE', 'S24_3LE']),
		fullScaleVrms: 2,
		readySec: 1,
		volume: null,
		draw: draw('usb', 0.3, 0.4, 0.5),
		sockets: [
			socket('in', 'usb-a', ['data', 'power'], 1, true),
			socket('out', 'optical', ['sound']),
			socket('out', 'coax', ['sound'])
		]
	}),
	row('converter', {
		id: 'conv-jack',
		name: 'The board\u2019s own headphone jack',
		price: 0,
		joint: 'jack',
		playback: takes(TO_48, ['S16_LE'], [1, 2]),
		fullScaleVrms: 0.9,
		readySec: 0.2,
		volume: { name: 'PCM', lowestDb: -100, startDb: -20 }
	}),
	row('converter', {
		id: 'conv-display',
		name: 'The sound of the HDMI port',
		price: 0,
		joint: 'display',
		playback: takes([32000, ...TO_192], ['IEC958_SUBFRAME_LE'], [2, 8]),
		fullScaleVrms: 2,
		readySec: 0.2,
		volume: null,
		figures: {
			playback: {
				sure: 'typical',
				source:
					'Linux 6.1, drivers/gpu/drm/vc4/vc4_hdmi.c: frames of IEC 60958 only. Boards whose driver is hdmi-codec.c take plain samples, too: the probe says which.'
			}
		}
	}),
	row('amplifier', {
		id: 'amp-old',
		name: 'Old integrated amplifier, 2 × 30 W',
		price: 0,
		sensitivityVrms: 0.25,
		ratedW: 30,
		ratedOhm: 8,
		leastOhm: 4,
		draw: draw('mains', 18, 30, 120, 300),
		sockets: [socket('in', 'rca-pair', ['sound'], 3), socket('out', 'speaker-wire', ['sound'], 2)]
	}),
	row('amplifier', {
		id: 'amp-mono',
		name: 'Small amplifier board, 2 × 10 W',
		price: 14,
		sensitivityVrms: 0.7,
		ratedW: 10,
		ratedOhm: 4,
		bridged: true,
		feed: { lowestV: 9, highestV: 15 },
		draw: draw('mains', 1, 5, 24, 30),
		sockets: [
			socket('in', 'jack-3', ['sound']),
			socket('in', 'barrel', ['power']),
			socket('out', 'speaker-wire', ['sound'], 2)
		]
	}),
	row('amplifier', {
		id: 'amp-digital',
		name: 'Amplifier with optical and coaxial in, 2 × 50 W',
		price: 130,
		sensitivityVrms: 2,
		ratedW: 50,
		ratedOhm: 8,
		leastOhm: 4,
		bridged: true,
		draw: draw('mains', 6, 20, 150, 250),
		sockets: [
			socket('in', 'rca-pair', ['sound']),
			socket('in', 'optical', ['sound']),
			socket('in', 'coax', ['sound']),
			socket('out', 'speaker-wire', ['sound'], 2)
		]
	}),
	row('amplifier', {
		id: 'amp-powered',
		builtIn: true,
		name: 'Inside powered speakers, 2 × 20 W',
		price: 0,
		sensitivityVrms: 1,
		ratedW: 20,
		ratedOhm: 6,
		draw: draw('mains', 2, 8, 50, 80),
		sockets: [
			socket('in', 'rca-pair', ['sound']),
			socket('in', 'optical', ['sound']),
			socket('out', 'speaker-wire', ['sound'], 2)
		]
	}),
	row('amplifier', {
		id: 'amp-desk',
		builtIn: true,
		name: 'Inside small USB-powered speakers, 2 × 2 W',
		price: 0,
		sensitivityVrms: 0.6,
		ratedW: 2,
		ratedOhm: 4,
		draw: draw('usb', 0.5, 1.5, 5, 6),
		sockets: [
			socket('in', 'jack-3', ['sound']),
			socket('in', 'usb-a', ['power'], 1, true),
			socket('out', 'speaker-wire', ['sound'], 2)
		]
	}),
	row('amplifier', {
		id: 'amp-set',
		builtIn: true,
		name: 'Inside a television set, 2 × 8 W',
		price: 0,
		sensitivityVrms: 1.2,
		ratedW: 8,
		ratedOhm: 8,
		sockets: [
			socket('in', 'display', ['sound', 'picture']),
			socket('in', 'jack-3', ['sound']),
			socket('out', 'speaker-wire', ['sound'], 2)
		]
	}),
	row('amplifier', {
		id: 'amp-phones',
		name: 'Headphone amplifier, 2 × 0.1 W into 32 Ω',
		price: 26,
		sensitivityVrms: 1,
		ratedW: 0.1,
		ratedOhm: 32,
		leastOhm: 16,
		draw: draw('usb', 0.3, 0.6, 1),
		sockets: [
			socket('in', 'rca-pair', ['sound']),
			socket('in', 'jack-3', ['sound']),
			socket('in', 'usb-a', ['power'], 1, true),
			socket('out', 'jack-3', ['sound'])
		]
	}),
	row('amplifier', {
		id: 'amp-monitor',
		builtIn: true,
		name: 'Inside monitor speakers with balanced inputs, 2 × 40 W',
		price: 0,
		sensitivityVrms: 1.23,
		ratedW: 40,
		ratedOhm: 6,
		draw: draw('mains', 4, 12, 110, 160),
		sockets: [
			socket('in', 'xlr', ['sound'], 2),
			socket('in', 'rca-pair', ['sound']),
			socket('out', 'speaker-wire', ['sound'], 2)
		]
	}),
	row('speakers', {
		id: 'phones-32',
		name: 'Headphones, 32 Ω, 100 dB at 1 mW',
		price: 29,
		ohm: 32,
		leastOhm: 28,
		// 1 mW into 32 Ω is 0.179 V: 24 dB below 2.83 V.
		sensitivityDb: 124,
		atEar: true,
		ratedW: 0.1,
		count: 2,
		figures: {
			sensitivityDb: { sure: 'typical', source: 'As makers print it, for 1 mW (IEC 60268-7, 8.6), turned to 2.83 V.' }
		},
		sockets: [socket('in', 'jack-3', ['sound'], 1, true)]
	}),
	row('sound-accessory', {
		id: 'isolator-line',
		name: 'Ground-loop isolator for red and white sockets',
		price: 11,
		does: 'Parts the grounds of two devices by a pair of transformers, which ends a hum between them.',
		lossDb: 1,
		sockets: [socket('in', 'rca-pair', ['sound']), socket('out', 'rca-pair', ['sound'])]
	}),
	row('sound-accessory', {
		id: 'sub-powered',
		name: 'Powered subwoofer, 80 W, line in and through',
		price: 140,
		does: 'Plays the lowest notes from the same line, and hands the line on. Its own level is set by its knob.',
		draw: draw('mains', 0.5, 12, 110, 160),
		sockets: [socket('in', 'rca-pair', ['sound']), socket('out', 'rca-pair', ['sound'])]
	}),
	row('sound-accessory', {
		id: 'extractor-display',
		name: 'Audio extractor for HDMI',
		price: 24,
		does: 'Takes the sound out of an HDMI cable, and hands the picture on.',
		draw: draw('usb', 0.4, 0.8, 1.2),
		sockets: [
			socket('in', 'display', ['sound', 'picture']),
			socket('in', 'usb-a', ['power'], 1, true),
			socket('out', 'display', ['picture']),
			socket('out', 'rca-pair', ['sound']),
			socket('out', 'optical', ['sound'])
		]
	}),
	...(
		[
			['sp-shelf', 'Shelf pair, 8 Ω, 86 dB', 0, 8, 86, 2, 60],
			['sp-floor', 'Floor-standing pair, 8 Ω, 90 dB', 0, 8, 90, 2, 120],
			['sp-ceiling', 'Four ceiling speakers, 8 Ω, 88 dB', 96, 8, 88, 4, 20],
			['sp-horn', 'Outdoor horn, 8 Ω, 104 dB', 44, 8, 104, 1, 25],
			['sp-desk', 'Small desk pair, 4 Ω, 82 dB', 18, 4, 82, 2, 5],
			['sp-set', 'In a television set, 8 Ω, 84 dB', 0, 8, 84, 2, 10],
			['sp-powered', 'Powered pair, 6 Ω, 87 dB', 120, 6, 87, 2, 30],
			['sp-monitor', 'Monitor pair, 6 Ω, 88 dB', 240, 6, 88, 2, 50]
		] as const
	).map(([id, name, price, ohm, sensitivityDb, count, ratedW]) =>
		row('speakers', {
			id,
			name,
			price,
			ohm,
			sensitivityDb,
			ratedW,
			count,
			figures: { ohm: { sure: 'standard', source: 'Rated impedance on its plate: IEC 60268-5, clause 16.' } },
			sockets: [socket('in', 'speaker-wire', ['sound'], count)]
		})
	)
];
