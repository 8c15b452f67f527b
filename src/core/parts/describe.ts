import { formatHz } from '../basics/format';
import { PLUGS } from './plugs';
import { CODEC_WORDS, figureSource, type HeaderUse, type Part, type Sureness } from './schema';

/** A part's figure in the words and units of a person. */
interface Described {
	readonly field: string;
	readonly label: string;
	readonly text: string;
	readonly sure: Sureness;
	readonly source: string;
}

/** Label and unit of each field, in the order in which they are read. */
const FIELDS: Readonly<Record<string, readonly [label: string, unit: string]>> = {
	volts: ['Voltage', 'V'],
	amperes: ['Current', 'A'],
	noLoadW: ['From the wall at no load', 'W'],
	memoryMb: ['Memory', 'MB'],
	capacityGb: ['Capacity', 'GB'],
	writeMBps: ['Written at least with', 'MB/s'],
	enduranceTb: ['May be written', 'TB'],
	lengthM: ['Length', 'm'],
	areaMm2: ['Cross-section', 'mm²'],
	widthPx: ['Width', 'px'],
	heightPx: ['Height', 'px'],
	refreshHz: ['Refresh', 'Hz'],
	diagonalIn: ['Diagonal', 'in'],
	touch: ['Touch', ''],
	cutsEdges: ['Cuts its edges', ''],
	panel: ['Makes light as', ''],
	peakCdM2: ['White', 'cd/m²'],
	displayMhz: ['Display output to', 'MHz'],
	resistorsOhm: ['Resistors, highest bit first', 'Ω'],
	tolerancePercent: ['Tolerance', '%'],
	logicV: ['A one is', 'V'],
	joint: ['Joined by', ''],
	fullScaleVrms: ['Full scale', 'V RMS'],
	readySec: ['Ready after', 's'],
	idleW: ['Waiting', 'W'],
	peakW: ['Busiest', 'W'],
	surgeW: ['Inrush', 'W'],
	brownOutV: ['Restarts below', 'V'],
	warnsV: ['Warns and slows itself below', 'V'],
	firmwareSec: ['Firmware takes', 's'],
	kernelSec: ['Kernel takes', 's'],
	servicesSec: ['Services take', 's'],
	hasClock: ['Clock of its own', ''],
	keepsTime: ['Keeps the time', ''],
	radio: ['Wi-Fi', ''],
	fiveGhz: ['5 GHz', ''],
	radioWidthMhz: ['Wi-Fi channels to', 'MHz'],
	radioStreams: ['Wi-Fi streams', ''],
	bluetoothDbm: ['Bluetooth, sends with', 'dBm'],
	atEar: ['Worn on the ears', ''],
	wired: ['Ethernet socket', ''],
	wiredMbps: ['Ethernet speed', 'Mbit/s'],
	usbTotalA: ['USB, all together', 'A'],
	usbPortA: ['USB, one socket', 'A'],
	header3V3A: ['Header, 3.3 V', 'A'],
	softwareMpixPerSec: ['Decodes by program', 'Mpx/s'],
	bareKPerW: ['Chip to air, bare', 'K/W'],
	heatJPerK: ['Heat it holds', 'J/K'],
	throttleC: ['Slows itself at', '°C'],
	tuners: ['Tuners', ''],
	bitsPerColour: ['Bits a colour', ''],
	maxPixelClockMhz: ['Pixel clock to', 'MHz'],
	kPerW: ['Thermal resistance', 'K/W'],
	jPerK: ['Heat it holds', 'J/K'],
	areaCm2: ['Surface', 'cm²'],
	airFactor: ['More heat leaves by', '×'],
	control: ['Control', ''],
	closed: ['Closed', ''],
	sealed: ['Sealed', ''],
	spacersMm: ['Spacers', 'mm'],
	sensitivityVrms: ['Input for full power', 'V RMS'],
	ratedW: ['Rated power', 'W'],
	ratedOhm: ['at', 'Ω'],
	leastOhm: ['Not below', 'Ω'],
	channels: ['Channels', ''],
	bridged: ['Both output wires driven', ''],
	builtIn: ['Built in', ''],
	ohm: ['Impedance', 'Ω'],
	sensitivityDb: ['Sensitivity', 'dB'],
	count: ['Pieces', ''],
	speakers: ['Speakers', ''],
	gainDbi: ['Gain', 'dBi'],
	outdoor: ['For outdoors', ''],
	lossDb: ['Loss', 'dB'],
	ways: ['Ways', ''],
	ports: ['Sockets', ''],
	powered: ['Own supply', ''],
	wattHours: ['Charge', 'Wh'],
	efficiency: ['Part that arrives', ''],
	maxW: ['At most', 'W'],
	mbps: ['Speed', 'Mbit/s'],
	does: ['What it does', '']
};

/** Fields within what is made of several figures. */
const NESTED: Readonly<Record<string, readonly [label: string, unit: string]>> = {
	way: ['In or out', ''],
	plug: ['Plug or socket', ''],
	male: ['Goes in (plug)', ''],
	via: ['Fed by', ''],
	typicalW: ['In use', 'W'],
	ratesHz: ['Sample rates', 'Hz'],
	formats: ['Sample formats', ''],
	lowestDb: ['Lowest', 'dB'],
	startDb: ['When power comes', 'dB'],
	lowestV: ['From', 'V'],
	highestV: ['to', 'V'],
	i2s: ['Takes the sound lines (I²S)', ''],
	spi: ['SPI', ''],
	bus: ['Bus', ''],
	select: ['Select line', ''],
	i2c: ['I²C', ''],
	address: ['Address', ''],
	uart: ['Takes the serial lines', ''],
	displayBits: ['Bits of a parallel display', ''],
	gpio: ['GPIO lines that may not be moved', ''],
	movable: ['Lines that may be moved', ''],
	what: ['What for', ''],
	suggested: ['Suggested GPIO', ''],
	pwm: ['Needs PWM', ''],
	milliamperes5V: ['From 5 V', 'mA'],
	milliamperes3V3: ['From 3.3 V', 'mA'],
	idMemory: ['Carries its own memory', ''],
	passesThrough: ['Passes its pins through', ''],
	codec: ['Codec', ''],
	framesPerSec: ['Frames a second', ''],
	bitDepth: ['Bit depth', ''],
	part: ['Part (its id)', ''],
	name: ['Name', '']
};

/** What is made of several figures. */
const GROUPS: Readonly<Record<string, string>> = {
	sockets: 'Plugs and sockets',
	draw: 'What it draws',
	header: 'What it takes of the header',
	playback: 'Rates, formats and channels',
	volume: 'Volume of its own',
	amplifier: 'Amplifier of its own',
	feed: 'Supply of its own',
	decoders: 'Films that a circuit decodes',
	systems: 'What it receives',
	ends: 'Its two ends',
	carries: 'What it carries',
	lead: 'Its own lead',
	contains: 'What is in it'
};

/** A field of a part in words, and its unit. */
export const fieldWords = (field: string): { label: string; unit: string } => {
	const [label, unit] = FIELDS[field] ?? NESTED[field] ?? [GROUPS[field] ?? field, ''];
	return { label, unit };
};

/** Everything that is known of a part, in reading order: single figures first, then what is made of several. */
export function describePart(part: Part): Described[] {
	const values = part as unknown as Record<string, unknown>;
	const one = (field: string, label: string, text: string): Described => ({
		field,
		label,
		text,
		...figureSource(part, field)
	});
	const simple = Object.entries(FIELDS).flatMap(([field, [label, unit]]) => {
		const value = values[field];
		if (value === undefined || value === null || typeof value === 'object') return [];
		const text = typeof value === 'boolean' ? (value ? 'yes' : 'no') : `${String(value)}${unit ? `\u2009${unit}` : ''}`;
		return [one(field, label, text)];
	});
	return [...simple, ...madeOfSeveral(part, one)];
}

/** All of a few, the two ends of many. */
const describeRates = (ratesHz: readonly number[]): string =>
	ratesHz.length > 4
		? `${formatHz(ratesHz[0]!)} to ${formatHz(ratesHz.at(-1)!)}, ${ratesHz.length} rates`
		: ratesHz.map(formatHz).join(', ');

function madeOfSeveral(part: Part, one: (field: string, label: string, text: string) => Described): Described[] {
	const out: Described[] = [];
	if (part.kind === 'converter')
		out.push(
			one('playback', 'Rates', describeRates(part.playback.ratesHz)),
			one('playback', 'Formats', part.playback.formats.join(', ')),
			one(
				'volume',
				'Volume of its own',
				part.volume ? `${part.volume.name}, down to ${part.volume.lowestDb}\u2009dB` : 'none'
			)
		);
	const output = part.kind === 'amplifier' ? part : part.kind === 'converter' ? part.amplifier : null;
	if (output && part.kind === 'converter')
		out.push(
			one(
				'amplifier',
				'Amplifier of its own',
				`${output.channels} × ${output.ratedW}\u2009W at ${output.ratedOhm}\u2009Ω`
			)
		);
	if (output?.feed)
		out.push(one('feed', 'Needs a supply of', `${output.feed.lowestV} to ${output.feed.highestV}\u2009V`));
	if (part.kind === 'board')
		out.push(
			one(
				'decoders',
				'Decodes by a circuit',
				part.decoders
					.map((d) => `${CODEC_WORDS[d.codec]} ${d.heightPx}p${d.framesPerSec}, ${d.bitDepth} bit`)
					.join('; ') || 'nothing'
			)
		);
	if (part.kind === 'tuner') out.push(one('systems', 'Receives', part.systems.join(', ')));
	if (part.kind === 'lead')
		out.push(
			one(
				'ends',
				'Ends',
				part.ends.map(({ plug, male }) => `${PLUGS[plug].words}${male ? '' : ', socket'}`).join(' — ')
			),
			one('carries', 'Carries', part.carries.join(', '))
		);
	if (part.kind === 'supply' && part.lead)
		out.push(one('lead', 'Its own lead', `${part.lead.lengthM}\u2009m of ${part.lead.areaMm2}\u2009mm²`));
	if (part.kind === 'kit')
		out.push(one('contains', 'Contains', part.contains.map((item) => `${item.count} × ${item.part}`).join(', ')));
	if (part.draw)
		out.push(
			one(
				'draw',
				'Draws',
				`${part.draw.idleW} / ${part.draw.typicalW} / ${part.draw.peakW}\u2009W, surge ${part.draw.surgeW}\u2009W, from ${VIA[part.draw.via]}`
			)
		);
	if (part.header) out.push(one('header', 'On the header', describeHeaderUse(part.header)));
	if (part.sockets.length)
		out.push(
			one(
				'sockets',
				'Plugs and sockets',
				part.sockets.map(({ plug, count }) => `${count > 1 ? `${count} × ` : ''}${PLUGS[plug].words}`).join(', ')
			)
		);
	return out;
}

const VIA = { usb: 'USB', header: 'the header', board: 'the board', mains: 'the wall' } as const;

/** What a part takes of the header, in words. */
export function describeHeaderUse(use: HeaderUse): string {
	return (
		[
			use.i2s ? 'I2S sound' : '',
			...use.spi.map(({ bus, select }) => `SPI ${bus}, select ${select}`),
			...use.i2c.map(({ address }) => `I2C 0x${address.toString(16).padStart(2, '0')}`),
			use.uart ? 'serial line' : '',
			use.displayBits ? `parallel display, ${use.displayBits} bit` : '',
			use.gpio.length ? `GPIO ${use.gpio.join(', ')}` : '',
			...use.movable.map(({ what, suggested }) => `${what} (GPIO ${suggested}, movable)`),
			use.idMemory ? 'identifying memory' : '',
			use.milliamperes5V ? `${use.milliamperes5V}\u2009mA at 5\u2009V` : '',
			use.milliamperes3V3 ? `${use.milliamperes3V3}\u2009mA at 3.3\u2009V` : ''
		]
			.filter(Boolean)
			.join(', ') || 'power only'
	);
}

/** The two or three figures by which one tells parts of a kind apart. */
const TELLING: Readonly<Partial<Record<Part['kind'], readonly string[]>>> = {
	board: ['memoryMb', 'peakW', 'wiredMbps'],
	supply: ['volts', 'amperes'],
	lead: ['ends', 'carries'],
	converter: ['Rates', 'draw'],
	tuner: ['systems'],
	screen: ['widthPx', 'heightPx', 'draw'],
	fan: ['control', 'airFactor'],
	cooler: ['kPerW', 'areaCm2'],
	case: ['kPerW', 'closed'],
	'hold-up': ['wattHours', 'maxW'],
	'add-on': ['does'],
	kit: ['contains'],
	amplifier: ['ratedW', 'ratedOhm', 'sensitivityVrms'],
	speakers: ['ohm', 'sensitivityDb'],
	antenna: ['gainDbi', 'outdoor'],
	hub: ['ports', 'powered']
};

/** The few figures that tell parts of one kind apart, in a line. */
export function tellingOf(part: Part): string {
	const wanted = TELLING[part.kind];
	const all = describePart(part);
	const chosen = wanted
		? all.filter(({ field, label }) => wanted.includes(field) || wanted.includes(label))
		: all.slice(0, 2);
	return chosen
		.map(({ field, label, text }) => {
			if (field === 'draw' && part.draw) return `${part.draw.typicalW}\u2009W from ${VIA[part.draw.via]}`;
			return text === 'yes' || text === 'no' ? `${label.toLowerCase()}: ${text}` : text;
		})
		.join(' · ');
}
