import { lines } from '../../files/cardFile';
import { pageTop } from '../../files/html';
import type { CardLine } from '../../link/file';

/** What differs between two outputs of one board, in the order in which one sees it. */
const LOOK_FOR = [
	'Small letters: sharp, or with a shadow',
	'Vertical lines: still, or shimmering',
	'Skies and faces: smooth, or in bands',
	'Black: black, or grey',
	'Colours of the bars card: eight, none doubled',
	'Slow pans: gliding, or stuttering',
	'While the board is busy: calm, or flickering',
	'Sound and lips: together, or apart'
];

/** A sheet for comparing two outputs side by side, on the same film and at the same moment. */
export const compareSheet = (endpoint: string, first: string): CardLine[] => [
	...pageTop('Two outputs compared', endpoint),
	...lines(
		'picture.mode',
		'<p>Play the same film to the same moment on both, in the same light and from the same seat. Note what you see, and only then decide.</p>',
		'<p>Film: <span class="read"></span> at minute <span class="read"></span></p>',
		`<table><tr><th>Look for</th><th>A: ${first}</th><th>B: HDMI</th></tr>`,
		...LOOK_FOR.map((what) => `<tr><th>${what}</th><td></td><td></td></tr>`),
		'</table>'
	)
];
