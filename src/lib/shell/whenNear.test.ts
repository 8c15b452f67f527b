import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { whenNear } from './whenNear';

// The server's own stand-in draws nothing.
vi.mock('svelte', () => ({ flushSync: (draw: () => void) => draw() }));

let nowMs: number;
let frames: (() => void)[];
let looking: Map<object, (near: boolean) => void>;

beforeEach(() => {
	nowMs = 0;
	frames = [];
	looking = new Map();
	vi.stubGlobal('performance', { now: () => nowMs });
	vi.stubGlobal('requestAnimationFrame', (frame: () => void) => frames.push(frame));
	vi.stubGlobal(
		'IntersectionObserver',
		class {
			#element: object = {};
			constructor(readonly seen: (entries: { isIntersecting: boolean }[]) => void) {}
			observe(element: object): void {
				this.#element = element;
				looking.set(element, (near) => this.seen([{ isIntersecting: near }]));
			}
			disconnect(): void {
				looking.delete(this.#element);
			}
		}
	);
});
afterEach(() => vi.unstubAllGlobals());

const attach = (then: () => void): { come: (near: boolean) => void; gone: () => void } => {
	const element = {} as Element;
	const gone = whenNear(then)(element);
	return { come: (near) => looking.get(element)?.(near), gone };
};
const nextFrame = (): void => {
	for (const frame of frames.splice(0)) frame();
};

it('draws what comes in sight once, and nothing before or after it is gone', () => {
	const drawn: string[] = [];
	const one = attach(() => drawn.push('one'));
	const other = attach(() => drawn.push('other'));
	one.come(false);
	nextFrame();
	expect(drawn).toEqual([]);
	other.gone();
	for (let n = 0; n < 3; n++) {
		one.come(true);
		other.come(true);
		nextFrame();
	}
	expect(drawn).toEqual(['one']);
	expect(looking.size).toBe(0);
});

it('draws as many in one frame as leave the page time, the rest in the next, and one that fails keeps none waiting', () => {
	const drawn: number[] = [];
	const many = Array.from({ length: 9 }, (_, n) =>
		attach(() => {
			nowMs += 4;
			if (n === 4) throw new Error('cannot be drawn');
			drawn.push(n);
		})
	);
	for (const { come } of many) come(true);
	expect(frames).toHaveLength(1);
	nextFrame();
	expect(drawn).toEqual([0, 1, 2]);
	expect(nextFrame).toThrow('cannot be drawn');
	nextFrame();
	nextFrame();
	expect(drawn).toEqual([0, 1, 2, 3, 5, 6, 7, 8]);
	expect(frames).toEqual([]);
});
