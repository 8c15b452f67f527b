import type { Link } from '$core/link';
import type { Place } from '$core/link/place';

/** A box of the drawing, in its own units. */
export interface Box {
	readonly id: string;
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
	readonly centre: boolean;
}
export interface Wire {
	readonly from: string;
	readonly to: string;
	readonly carries: Place['wires'][number]['carries'];
	/** An SVG path. */
	readonly path: string;
}
export interface End {
	readonly of: string;
	readonly sense: NonNullable<Place['end']>['sense'];
	readonly x: number;
	readonly y: number;
	readonly path: string;
}
export interface ChainLayout {
	readonly width: number;
	readonly height: number;
	readonly boxes: readonly Box[];
	readonly wires: readonly Wire[];
	readonly ends: readonly End[];
}

const HEIGHT = 45;
const TALL = 207;
const WIDTH = 1040;
/** Where each column stands, how wide it is, and how many rows it has room for. */
const COLUMNS: Readonly<Record<Place['column'], { x: number; width: number; rows: number }>> = {
	world: { x: 0, width: 178, rows: 4 },
	content: { x: 214, width: 186, rows: 4 },
	board: { x: 446, width: 186, rows: 3 },
	out: { x: 676, width: 178, rows: 3 }
};
const GAP = 6;
const END_X = 884;
/** Wires that meet at one side of a box stand so far apart. */
const SPREAD = 9;
const BEND = 10;

interface Joined {
	readonly from: string;
	readonly to: string;
	readonly carries: Place['wires'][number]['carries'];
}

/** Every wire that a link names, as far as both ends are there. */
export const wiresOf = (links: readonly Pick<Link, 'id' | 'place'>[]): Joined[] =>
	links
		.flatMap(({ id, place }) =>
			place.wires.map((wire) => ({
				from: 'from' in wire ? wire.from : id,
				to: 'to' in wire ? wire.to : id,
				carries: wire.carries
			}))
		)
		.filter(({ from, to }) => [from, to].every((end) => links.some(({ id }) => id === end)));

/** The whole chain as a drawing, from what each link says of its place. */
export function layoutChain(links: readonly Pick<Link, 'id' | 'place'>[]): ChainLayout {
	const boxes = links.map(({ id, place }) => boxOf(id, place, links));
	const byId = new Map(boxes.map((box) => [box.id, box]));
	const wanted = wiresOf(links).map(({ from, to, carries }) => ({ from: byId.get(from)!, to: byId.get(to)!, carries }));
	const across = wanted.filter(({ from, to }) => from.x !== to.x && !overlaps(from, to));
	const portOf = (box: Box, side: 'from' | 'to', wire: (typeof across)[number]): number => {
		const other = side === 'from' ? 'to' : 'from';
		const sharing = across.filter((known) => known[side] === box).sort((a, b) => a[other].y - b[other].y);
		return middle(box) + (sharing.indexOf(wire) - (sharing.length - 1) / 2) * SPREAD;
	};
	const wires = wanted.map((wire): Wire => {
		const { from, to, carries } = wire;
		const path = across.includes(wire)
			? elbow(
					from.x + from.width,
					portOf(from, 'from', wire),
					to.x,
					portOf(to, 'to', wire),
					channelOf(across, wire),
					boxes.find((box) => isBetween(box, from, to) && isAt(box, portOf(from, 'from', wire))) ?? null
				)
			: upright(from, to);
		return { from: from.id, to: to.id, carries, path };
	});
	const ends = links.flatMap(({ id, place }): End[] => {
		const box = byId.get(id)!;
		const y = middle(box);
		return place.end
			? [{ of: id, sense: place.end.sense, x: END_X, y, path: `M${box.x + box.width} ${y} H${END_X}` }]
			: [];
	});
	return { width: WIDTH, height: TALL, boxes, wires, ends };
}

/** Whoever shares a row with nobody has all of it. */
function boxOf(id: string, place: Place, links: readonly Pick<Link, 'id' | 'place'>[]): Box {
	const { column, row, centre } = place;
	const { x, width, rows } = COLUMNS[column];
	const isShared = links.some((other) => other.id !== id && other.place.column === column && other.place.row === row);
	const half = isShared ? place.half : undefined;
	const halfWidth = (width - GAP) / 2;
	return {
		id,
		x: half === 'right' ? x + halfWidth + GAP : x,
		y: Math.round((row * (TALL - HEIGHT)) / (rows - 1)),
		width: half ? halfWidth : width,
		height: HEIGHT,
		centre: centre === true
	};
}

const middle = ({ y, height }: Box): number => y + height / 2;
const overlaps = (a: Box, b: Box): boolean => a.x < b.x + b.width && b.x < a.x + a.width;

/** Wires of one gap between columns turn one after another, so that none lies on another. */
function channelOf(across: readonly { from: Box; to: Box }[], wire: { from: Box; to: Box }): number {
	const sharing = across.filter(({ to }) => to.x === wire.to.x).sort((a, b) => middle(b.from) - middle(a.from));
	return wire.to.x - 14 - sharing.indexOf(wire) * 7;
}

/** Further right than one and further left than the other. */
const isBetween = (box: Box, from: Box, to: Box): boolean => box.x > from.x + from.width && box.x + box.width < to.x;
const isAt = (box: Box, y: number): boolean => y >= box.y && y <= box.y + box.height;
/** Between a row and the next. */
const ROW_GAP = 9;

/** `over`: a box that stands in the straight way; the wire takes the gap beside its row. */
function elbow(x1: number, y1: number, x2: number, y2: number, channel: number, over: Box | null): string {
	if (over) {
		const gapY = y2 > y1 ? over.y + over.height + ROW_GAP / 2 : over.y - ROW_GAP / 2;
		return `${turned(x1, y1, over.x, gapY, over.x - 20)} ${turned(over.x, gapY, x2, y2, channel).replace(/^M\S+ \S+ /, '')}`;
	}
	return turned(x1, y1, x2, y2, channel);
}

/** Across, up or down in the channel, and across again, with round corners. */
function turned(x1: number, y1: number, x2: number, y2: number, channel: number): string {
	if (Math.abs(y2 - y1) < 1) return `M${x1} ${y1} H${x2}`;
	const bend = Math.min(BEND, Math.abs(y2 - y1) / 2);
	const way = y2 > y1 ? 1 : -1;
	return [
		`M${x1} ${y1} H${channel - bend}`,
		`Q${channel} ${y1} ${channel} ${y1 + way * bend}`,
		`V${y2 - way * bend}`,
		`Q${channel} ${y2} ${channel + bend} ${y2}`,
		`H${x2}`
	].join(' ');
}

/** Above each other: straight, where both have something of the line. */
function upright(from: Box, to: Box): string {
	const [upper, lower] = from.y < to.y ? [from, to] : [to, from];
	const x = Math.round((Math.max(from.x, to.x) + Math.min(from.x + from.width, to.x + to.width)) / 2);
	return `M${x} ${upper.y + upper.height} V${lower.y}`;
}
