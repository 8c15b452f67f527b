/** Pixels of a mode, from each edge. */
export interface Edges {
	readonly left: number;
	readonly right: number;
	readonly top: number;
	readonly bottom: number;
}
/** Quarter turns, clockwise, in degrees. */
export type Turn = 0 | 90 | 180 | 270;

/** Edges of the panel as who looks at it sees them: a picture turned clockwise is upright on a set that hangs turned back, its right edge on top. */
export function hungEdges({ left, right, top, bottom }: Edges, turn: Turn): Edges {
	switch (turn) {
		case 0:
			return { left, right, top, bottom };
		case 90:
			return { left: top, right: bottom, top: right, bottom: left };
		case 180:
			return { left: right, right: left, top: bottom, bottom: top };
		case 270:
			return { left: bottom, right: top, top: left, bottom: right };
	}
}
