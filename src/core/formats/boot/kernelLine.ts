import { linesOf } from '../lines';
import { kernelWords } from './kernelArgs';

/**
 * What the kernel is told at the start, from the first of the files by which boards start that is there.
 * Source: kernel-parameters in the kernel's admin guide; the boot loader specification of U-Boot's extlinux.conf.
 */
export const kernelLineOf = (textOf: (path: string) => string | undefined): string[] =>
	kernelWords(
		textOf('boot/cmdline.txt') ??
			linesOf(textOf('boot/extlinux/extlinux.conf') ?? '')
				.map((line) => line.trim())
				.find((line) => /^append\s/i.test(line))
				?.slice('append'.length) ??
			''
	);

/** One `video=` argument. Source: the kernel's fb/modedb document. */
export interface VideoArgument {
	readonly connector: string | null;
	readonly widthPx: number;
	readonly heightPx: number;
	/** null: not said. */
	readonly refreshHz: number | null;
	readonly interlaced: boolean;
	readonly computed: 'no' | 'cvt' | 'cvt-rb';
	readonly forced: boolean;
	readonly margins: Readonly<Record<'left' | 'right' | 'top' | 'bottom', number>>;
}

/** Reads `video=`; null where it is none, or none that gives a mode. */
export function readVideoArgument(word: string): VideoArgument | null {
	const found =
		/^video=(?:([A-Za-z0-9-]+):)?(\d{1,5})x(\d{1,5})(M?)(R?)(?:-\d{1,2})?(?:@(\d{1,3}))?(i?)m?([eDd]?)(?:,|$)(.*)$/.exec(
			word
		);
	if (!found) return null;
	const [, connector, width, height, cvt, reduced, refresh, interlaced, force, options] = found;
	const margin = (side: string): number =>
		Number(new RegExp(`(?:^|,)margin_${side}=(\\d{1,4})(?:,|$)`).exec(options!)?.[1] ?? 0);
	return {
		connector: connector ?? null,
		widthPx: Number(width),
		heightPx: Number(height),
		refreshHz: refresh === undefined ? null : Number(refresh),
		interlaced: interlaced === 'i',
		computed: cvt ? (reduced ? 'cvt-rb' : 'cvt') : 'no',
		forced: force === 'e' || force === 'D',
		margins: { left: margin('left'), right: margin('right'), top: margin('top'), bottom: margin('bottom') }
	};
}
