import { draw, headerUse, row, socket, type PartRow } from './make';

const fanUse = (milliamperes5V: number, control: 'always' | 'switched' | 'pwm') =>
	headerUse({
		milliamperes5V,
		passesThrough: true,
		movable:
			control === 'always'
				? []
				: [{ what: 'fan control', suggested: control === 'pwm' ? 18 : 14, pwm: control === 'pwm' }]
	});

/** Cases, coolers and fans. Thermal figures are typical: two readings of your own beat them. */
export const cooling: readonly PartRow[] = [
	...(
		[
			['case-open', 'Open frame on spacers', 6, 0, false, 8],
			['case-plastic', 'Plastic case, closed', 7, 3.5, true, 3],
			['case-vented', 'Plastic case with slots', 8, 1.6, false, 3],
			['case-metal', 'Metal case that is the heatsink', 16, 0.4, true, 4],
			['case-tall', 'Tall case, room for one add-on', 12, 1.9, false, 4],
			['case-behind', 'Box for the back of a screen', 11, 2.8, true, 3],
			['case-weather', 'Sealed weatherproof box', 24, 4.5, true, 6]
		] as const
	).map(([id, name, price, kPerW, closed, spacersMm]) =>
		row('case', { id, name, price, kPerW, closed, sealed: id === 'case-weather', spacersMm })
	),
	...(
		[
			['cooler-stick', 'Stick-on heatsink, 14 × 14 mm', 2, 80, 5, 10],
			['cooler-large', 'Heatsink over the whole board', 9, 8, 60, 120],
			['cooler-case', 'Block that joins chip and metal case', 5, 3.8, 160, 300],
			['cooler-tower', 'Tall heatsink with heat pipe', 14, 4.2, 75, 260]
		] as const
	).map(([id, name, price, kPerW, jPerK, areaCm2]) => row('cooler', { id, name, price, kPerW, jPerK, areaCm2 })),
	row('fan', {
		id: 'fan-5-always',
		name: 'Fan 30 mm, 5 V, always on',
		price: 4,
		airFactor: 2.4,
		volts: 5,
		control: 'always',
		draw: draw('header', 0.5, 0.5, 0.6, 1),
		header: fanUse(110, 'always')
	}),
	row('fan', {
		id: 'fan-5-switched',
		name: 'Fan 40 mm, 5 V, with a switch transistor',
		price: 7,
		airFactor: 2.8,
		volts: 5,
		control: 'switched',
		draw: draw('header', 0, 0.4, 0.7, 1.2),
		header: fanUse(130, 'switched')
	}),
	row('fan', {
		id: 'fan-5-pwm',
		name: 'Fan 40 mm, 5 V, speed by PWM',
		price: 9,
		airFactor: 3.2,
		volts: 5,
		control: 'pwm',
		draw: draw('header', 0.1, 0.4, 0.9, 1.3),
		header: fanUse(170, 'pwm')
	}),
	row('fan', {
		id: 'fan-socket-pwm',
		name: 'Heatsink fan for the board\u2019s own fan socket',
		price: 6,
		airFactor: 3,
		volts: 5,
		control: 'pwm',
		draw: draw('board', 0.1, 0.4, 0.9, 1.3),
		sockets: [socket('in', 'fan-header', ['power'], 1, true)]
	})
];
