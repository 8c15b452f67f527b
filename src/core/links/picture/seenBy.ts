import type { Machine } from '../../engines/machine';
import type { ScreenWish, Shown } from '../../engines/machine/signals';
import type { PlayedPicture } from '../../parts/media';
import { playLoad } from '../../parts/playLoad';
import { videoShapeSchema } from '../../parts/schema';
import { refreshHzOf, type VideoTiming } from '../../standards/videoTiming';
import type { BenchScreen } from './bench';
import { videoArgumentFor } from './modes/display';
import { modeInWords } from './modes/written';
import { cutPercent, placed, slipsPerSec, windowOf, type Seen } from './seen';

interface Drawn {
	readonly screen: BenchScreen;
	readonly wish: ScreenWish;
	readonly timing: VideoTiming;
	readonly shown: Shown & { readonly picture: PlayedPicture; readonly byCircuit: boolean };
	/** Words of the kernel's own line. */
	readonly kernelWords: Parameters<typeof videoArgumentFor>[0];
}

/** What somebody before the set sees of a picture that is played. */
export function seenBy(
	machine: Machine,
	{ screen, wish, timing, shown: { title, id, picture, byCircuit }, kernelWords }: Drawn
): Seen {
	const { margins } = wish;
	const own = videoArgumentFor(kernelWords, screen.connector)?.margins;
	if (own && Object.values(own).some((px) => px > 0)) machine.assumed.add('the display\u2019s driver knows margins');
	const kernel = {
		left: (own?.left ?? 0) / timing.widthPx,
		right: (own?.right ?? 0) / timing.widthPx,
		top: (own?.top ?? 0) / timing.heightPx,
		bottom: (own?.bottom ?? 0) / timing.heightPx
	};
	const within = placed(picture, timing, { turnDeg: wish.turnDeg, margins, stretches: wish.stretches });
	// The kernel's margins shrink all that is drawn.
	const squeeze = (at: number, low: number, high: number): number => low + at * (1 - low - high);
	const area = {
		left: squeeze(within.left, kernel.left, kernel.right),
		right: squeeze(within.right, kernel.left, kernel.right),
		top: squeeze(within.top, kernel.top, kernel.bottom),
		bottom: squeeze(within.bottom, kernel.top, kernel.bottom)
	};
	const window = windowOf(screen);
	const wantedFps = picture.framesPerSec;
	return {
		title,
		id,
		mode: modeInWords(timing),
		widthPx: timing.widthPx,
		heightPx: timing.heightPx,
		refreshHz: refreshHzOf(timing),
		area,
		window,
		cutPercent: cutPercent(area, window),
		turnedDeg: (wish.turnDeg - screen.hangsDeg + 360) % 360,
		wantedFps,
		shownFps: wantedFps === null ? null : Math.min(wantedFps, wantedFps / loadOf(machine, picture, byCircuit)),
		slipsPerSec: slipsPerSec(wantedFps, timing),
		bitsPerColour: screen.bitsPerColour
	};
}

/** How much of the board decoding takes; at most all of it counts as enough. */
function loadOf(machine: Machine, picture: PlayedPicture, byCircuit: boolean): number {
	const { decoding } = machine.bench;
	const shape = videoShapeSchema.safeParse(picture);
	if (!decoding || !shape.success) return 1;
	const { share, by } = playLoad({ ...decoding, decoders: byCircuit ? decoding.decoders : [] }, shape.data);
	if (by === 'circuit')
		machine.assumed.add(
			'the system\u2019s kernel and player use the circuit that decodes films, as the image of the board\u2019s maker mostly does'
		);
	return Math.max(1, share);
}
