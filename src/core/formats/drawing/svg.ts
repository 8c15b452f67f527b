import type { Drawing, Shape } from './drawing';

const shapeText = (shape: Shape): string => {
	switch (shape.kind) {
		case 'box':
			return `<rect x="${shape.x}" y="${shape.y}" width="${shape.width}" height="${shape.height}" fill="${shape.colour}"/>`;
		case 'ring':
			return `<circle cx="${shape.x}" cy="${shape.y}" r="${shape.radius}" fill="none" stroke="${shape.colour}" stroke-width="${shape.line}"/>`;
		case 'chequer':
			return `<rect x="${shape.x}" y="${shape.y}" width="${shape.width}" height="${shape.height}" fill="url(#c${shape.colour.slice(1)})"/>`;
	}
};

/** Chequers are a pattern of two by two pixels. */
const patterns = ({ shapes }: Drawing): string =>
	[...new Set(shapes.flatMap((shape) => (shape.kind === 'chequer' ? [shape.colour] : [])))]
		.map(
			(colour) =>
				`<pattern id="c${colour.slice(1)}" width="2" height="2" patternUnits="userSpaceOnUse"><path d="M0 0h1v1H0zM1 1h1v1H1z" fill="${colour}"/></pattern>`
		)
		.join('');

/** A drawing as SVG at its own size, every edge on a pixel. */
export function writeSvg(drawing: Drawing): string {
	const { widthPx, heightPx, ground, shapes } = drawing;
	const defs = patterns(drawing);
	return [
		`<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" viewBox="0 0 ${widthPx} ${heightPx}" shape-rendering="crispEdges">`,
		...(defs ? [`<defs>${defs}</defs>`] : []),
		`<rect width="${widthPx}" height="${heightPx}" fill="${ground}"/>`,
		...shapes.map(shapeText),
		'</svg>',
		''
	].join('\n');
}
