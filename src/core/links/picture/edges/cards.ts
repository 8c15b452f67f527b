import { box, frame, word, wordHeight, wordWidth, writePng, type Drawing, type Shape } from '../../../formats/drawing';
import type { VideoTiming } from '../../../standards/videoTiming';
import type { Edges } from '../../../standards/edges';
import { activeArea, NO_EDGES, type Size } from './overscan';

const DARK = '#101814';
const LIGHT = '#f4f0e2';
const MUTED = '#5d6b60';
const AMBER = '#e0a030';
/** Clockwise from the top left: in this order it stands upright. */
export const CORNER_COLOURS = ['#ff0000', '#00ff00', '#ffff00', '#0000ff'] as const;

/** One test card: what it is called, what it is for, and how it is drawn for a mode. */
export interface TestCard {
	readonly id: string;
	readonly title: string;
	/** What to look for. */
	readonly look: string;
	readonly draw: (size: Size, edges: Edges) => Drawing;
}

const corners = ({ widthPx, heightPx }: Size, edges: Edges, side: number): Shape[] => {
	const area = activeArea({ widthPx, heightPx }, edges);
	const [left, top] = [area.leftPx, area.topPx];
	const [right, bottom] = [left + area.widthPx - side, top + area.heightPx - side];
	return [
		box(left, top, side, side, CORNER_COLOURS[0]),
		box(right, top, side, side, CORNER_COLOURS[1]),
		box(right, bottom, side, side, CORNER_COLOURS[2]),
		box(left, bottom, side, side, CORNER_COLOURS[3])
	];
};
const dotOf = ({ heightPx }: Size, share: number): number => Math.max(1, Math.round((heightPx * share) / 7));
const centred = (text: string, x: number, y: number, dot: number, colour: string): Shape[] =>
	word(text, Math.round(x - wordWidth(text, dot) / 2), Math.round(y), dot, colour);

/** Counts on each edge, and how far they reach: a set that cuts more than this cuts no more than that. */
const COUNTS = 18;
const REACH = 0.1;
/** Counts that are read and reckoned with easily. */
const STEPS = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40];

/**
 * Numbered rulers on all four edges. The box with a number begins exactly so many pixels from its edge: going outwards, the last
 * number that is whole is what the set cuts off.
 */
function edgesCard(size: Size): Drawing {
	const { widthPx, heightPx } = size;
	const dot = dotOf(size, 0.03);
	const tall = wordHeight(dot) + 2 * dot;
	const stepOf = (whole: number): number => STEPS.findLast((step) => step * COUNTS <= whole * REACH) ?? 1;
	const shapes: Shape[] = [];
	const label = (n: number, x: number, y: number, width: number, height: number, even: boolean): void => {
		shapes.push(box(x, y, width, height, even ? LIGHT : AMBER));
		const text = String(n);
		shapes.push(
			...word(
				text,
				x + Math.round((width - wordWidth(text, dot)) / 2),
				y + Math.round((height - wordHeight(dot)) / 2),
				dot,
				DARK
			)
		);
	};
	const wide = wordWidth('000', dot) + 4 * dot;
	const across = stepOf(widthPx);
	const down = stepOf(heightPx);
	const rows = Math.floor((heightPx * 0.76) / COUNTS);
	const columns = Math.floor((widthPx * 0.8) / COUNTS);
	for (let k = 0; k < COUNTS; k++) {
		const even = k % 2 === 0;
		const y = Math.round(heightPx * 0.12 + k * rows);
		const height = Math.min(tall, rows - 1);
		label(k * across, k * across, y, wide, height, even);
		label(k * across, widthPx - k * across - wide, y, wide, height, even);
		const x = Math.round(widthPx * 0.1 + k * columns);
		label(k * down, x, k * down, Math.min(wide, columns - 1), tall, even);
		label(k * down, x, heightPx - k * down - tall, Math.min(wide, columns - 1), tall, even);
	}
	return {
		...size,
		ground: DARK,
		shapes: [
			...corners(size, NO_EDGES, Math.round(heightPx * 0.03)),
			...shapes,
			...centred('TOP', widthPx / 2, heightPx * 0.19, dotOf(size, 0.03), AMBER),
			...centred('BOTTOM', widthPx / 2, heightPx * 0.78, dotOf(size, 0.03), AMBER),
			...centred('LEFT', widthPx * 0.24, heightPx * 0.49, dotOf(size, 0.03), AMBER),
			...centred('RIGHT', widthPx * 0.76, heightPx * 0.49, dotOf(size, 0.03), AMBER),
			...centred('GOING OUTWARDS,', widthPx / 2, heightPx * 0.34, dotOf(size, 0.03), LIGHT),
			...centred('WHICH IS THE LAST NUMBER THAT IS WHOLE?', widthPx / 2, heightPx * 0.4, dotOf(size, 0.03), LIGHT),
			...centred(`${widthPx} × ${heightPx}`, widthPx / 2, heightPx * 0.6, dotOf(size, 0.03), MUTED)
		]
	};
}

/** A frame on the very border of what is to be seen. */
function proofCard(size: Size, edges: Edges): Drawing {
	const area = activeArea(size, edges);
	const line = Math.max(2, Math.round(size.heightPx / 360));
	const middle = [area.leftPx + area.widthPx / 2, area.topPx + area.heightPx / 2] as const;
	return {
		...size,
		ground: '#000000',
		shapes: [
			box(area.leftPx, area.topPx, area.widthPx, area.heightPx, DARK),
			...corners(size, edges, Math.round(size.heightPx * 0.05)),
			...frame(area.leftPx, area.topPx, area.widthPx, area.heightPx, line, LIGHT),
			{
				kind: 'ring',
				x: Math.round(middle[0]),
				y: Math.round(middle[1]),
				radius: Math.round(area.heightPx * 0.4),
				line,
				colour: MUTED
			},
			...centred('A LINE ON ALL FOUR SIDES?', middle[0], middle[1] - size.heightPx * 0.03, dotOf(size, 0.034), LIGHT),
			...centred('THE CIRCLE ROUND?', middle[0], middle[1] + size.heightPx * 0.03, dotOf(size, 0.034), LIGHT)
		]
	};
}

function geometryCard(size: Size): Drawing {
	const { widthPx, heightPx } = size;
	const cell = Math.round(heightPx / 9);
	const lines: Shape[] = [];
	for (let x = (widthPx / 2) % cell; x < widthPx; x += cell) lines.push(box(x, 0, 1, heightPx, MUTED));
	for (let y = (heightPx / 2) % cell; y < heightPx; y += cell) lines.push(box(0, y, widthPx, 1, MUTED));
	const ring = (x: number, y: number, radius: number): Shape => ({
		kind: 'ring',
		x: Math.round(x),
		y: Math.round(y),
		radius: Math.round(radius),
		line: Math.max(2, Math.round(heightPx / 400)),
		colour: LIGHT
	});
	const small = heightPx * 0.11;
	return {
		...size,
		ground: DARK,
		shapes: [
			...lines,
			ring(widthPx / 2, heightPx / 2, heightPx * 0.44),
			...[small * 1.1, widthPx - small * 1.1].flatMap((x) => [
				ring(x, small * 1.1, small),
				ring(x, heightPx - small * 1.1, small)
			]),
			{
				kind: 'chequer',
				x: Math.round(widthPx / 2 - cell),
				y: Math.round(heightPx / 2 - cell / 2),
				width: 2 * cell,
				height: cell,
				colour: LIGHT
			},
			...frame(0, 0, widthPx, heightPx, 1, AMBER)
		]
	};
}

const grey = (level: number): string => `#${level.toString(16).padStart(2, '0').repeat(3)}`;

/** Patches that are lost when a set takes full levels for limited ones, or the other way round. */
function levelsCard(size: Size): Drawing {
	const { widthPx, heightPx } = size;
	const steps = 17;
	const ramp = Array.from({ length: steps }, (_, n) =>
		box((n * widthPx) / steps, heightPx * 0.1, Math.ceil(widthPx / steps), heightPx * 0.3, grey(Math.min(255, n * 16)))
	);
	const patch = Math.round(widthPx / 14);
	const dot = dotOf(size, 0.026);
	const row = (levels: readonly number[], y: number): Shape[] =>
		levels.flatMap((level, n) => {
			const x = widthPx / 2 + (n - levels.length / 2) * patch * 1.25;
			return [
				box(x, y, patch, heightPx * 0.14, grey(level)),
				...word(String(level), Math.round(x), Math.round(y + heightPx * 0.155), dot, MUTED)
			];
		});
	return {
		...size,
		ground: '#000000',
		shapes: [
			...ramp,
			...row([4, 8, 12, 16, 20, 24], heightPx * 0.48),
			box(0, heightPx * 0.72, widthPx, heightPx * 0.28, '#ffffff'),
			...row([231, 235, 239, 243, 247, 251], heightPx * 0.75)
		]
	};
}

const BARS = ['#f0f0e8', '#d8c840', '#40c0b8', '#48b050', '#b050a8', '#b84038', '#3848b0', '#141414'];
const barsCard = (size: Size): Drawing => ({
	...size,
	ground: DARK,
	shapes: BARS.flatMap((colour, n) => {
		const width = Math.ceil(size.widthPx / BARS.length);
		return [
			box((n * size.widthPx) / BARS.length, 0, width, size.heightPx * 0.7, colour),
			box((n * size.widthPx) / BARS.length, size.heightPx * 0.7, width, size.heightPx * 0.3, BARS[BARS.length - 1 - n]!)
		];
	})
});

/** Sixty-three steps of grey and of each colour: where they are not seen one by one, depth is lost. */
function gradientCard(size: Size): Drawing {
	const steps = 63;
	const hex = (level: number): string =>
		Math.round((level * 255) / steps)
			.toString(16)
			.padStart(2, '0');
	const bands = [
		(n: number) => `#${hex(n).repeat(3)}`,
		(n: number) => `#${hex(n)}0000`,
		(n: number) => `#00${hex(n)}00`,
		(n: number) => `#0000${hex(n)}`
	];
	return {
		...size,
		ground: '#000000',
		shapes: bands.flatMap((colour, band) =>
			Array.from({ length: steps + 1 }, (_, n) =>
				box(
					(n * size.widthPx) / (steps + 1),
					(band * size.heightPx) / 4,
					Math.ceil(size.widthPx / (steps + 1)),
					Math.ceil(size.heightPx / 4),
					colour(n)
				)
			)
		)
	};
}

/** Lines of capitals, each with its height in pixels beside it. */
function textCard(size: Size): Drawing {
	const shapes: Shape[] = [];
	let y = size.heightPx * 0.05;
	for (const dot of [1, 2, 3, 4, 6, 8, 11, 15]) {
		const tall = wordHeight(dot);
		if (y + tall > size.heightPx) break;
		shapes.push(...word(`${tall} FERRY 14:05 PIER 3`, Math.round(size.widthPx * 0.06), Math.round(y), dot, LIGHT));
		y += tall * 1.7;
	}
	return { ...size, ground: DARK, shapes };
}

const field = (id: string, title: string, ground: string): TestCard => ({
	id,
	title,
	look: 'Dots of another colour are pixels that do not work.',
	draw: (size) => ({ ...size, ground, shapes: [] })
});

/** Every card, in the order in which a person goes through them. */
export const TEST_CARDS: readonly TestCard[] = [
	{
		id: 'edges',
		title: 'Edges',
		look: 'On each side, going outwards: the last number that is whole is what the set cuts off.',
		draw: edgesCard
	},
	{
		id: 'proof',
		title: 'Proof of the edges',
		look: 'A thin line on all four sides, and a round circle.',
		draw: proofCard
	},
	{
		id: 'geometry',
		title: 'Geometry and pixels',
		look: 'Circles round, squares square; the chequer in the middle an even grey without waves or colours.',
		draw: geometryCard
	},
	{
		id: 'levels',
		title: 'Black and white levels',
		look: 'Every patch apart from its ground. Are 4 to 12 black and 239 to 251 white, the set takes full levels for limited ones: choose limited. Is black grey, choose full.',
		draw: levelsCard
	},
	{ id: 'bars', title: 'Colour bars', look: 'Eight colours, none of them doubled or missing.', draw: barsCard },
	{
		id: 'gradient',
		title: 'Gradients',
		look: 'Steps that are all alike. Broad bands are colours that the way there does not carry.',
		draw: gradientCard
	},
	{
		id: 'text',
		title: 'Text sizes',
		look: 'From where it will be read: the smallest line that can be read at ease.',
		draw: textCard
	},
	field('white', 'White field', '#ffffff'),
	field('black', 'Black field', '#000000'),
	field('red', 'Red field', '#ff0000'),
	field('green', 'Green field', '#00ff00'),
	field('blue', 'Blue field', '#0000ff')
];

/** Those that the card set brings; the rest are shown from the browser. */
const ON_CARD = ['edges', 'proof', 'levels', 'text'];

const REMEMBERED = 24;
const made = new Map<string, Uint8Array>();

/** A card for the mode as PNG, drawn once. */
function pngOf(card: TestCard, size: Size): Uint8Array {
	const key = `${card.id} ${size.widthPx} ${size.heightPx}`;
	let bytes = made.get(key);
	if (!bytes) {
		if (made.size >= REMEMBERED) made.clear();
		made.set(key, (bytes = writePng(card.draw(size, NO_EDGES))));
	}
	return bytes;
}

/** The cards that go on the endpoint, in exactly the mode; the player puts its own margins round them. */
export const testCards = ({
	widthPx,
	heightPx
}: Pick<VideoTiming, 'widthPx' | 'heightPx'>): { name: string; why: string; png: () => Uint8Array }[] =>
	TEST_CARDS.filter(({ id }) => ON_CARD.includes(id)).map((card) => ({
		name: card.id,
		why: `Test card: ${card.title.toLowerCase()}.`,
		png: () => pngOf(card, { widthPx, heightPx })
	}));
