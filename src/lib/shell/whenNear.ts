import { flushSync } from 'svelte';

/** How far off, in window heights, it counts as near. */
const NEAR = '30%';
/** Of a frame; what is left is drawn in the next. */
const MOST_MS = 10;
const waiting: (() => void)[] = [];

function draw(): void {
	const from = performance.now();
	try {
		while (waiting.length > 0 && performance.now() - from < MOST_MS) flushSync(waiting.shift()!);
	} finally {
		// One that fails keeps no other waiting.
		if (waiting.length > 0) requestAnimationFrame(draw);
	}
}

/** Calls once when an element is in sight, or nearly: a few of them in each frame, so that a page with many stands at once. */
export const whenNear =
	(then: () => void) =>
	(element: Element): (() => void) => {
		const observer = new IntersectionObserver(
			(entries) => {
				if (!entries.some(({ isIntersecting }) => isIntersecting)) return;
				observer.disconnect();
				if (waiting.push(then) === 1) requestAnimationFrame(draw);
			},
			{ rootMargin: NEAR }
		);
		observer.observe(element);
		return () => observer.disconnect();
	};
