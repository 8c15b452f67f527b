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
	/** null: the connector is only switched, or given margins. */
	readonly mode: {
		readonly widthPx: number;
		readonly heightPx: number;
		/** null: not said. */
		readonly refreshHz: number | null;
		readonly interlaced: boolean;
		readonly computed: 'no' | 'cvt' | 'cvt-rb';
	} | null;
	readonly forced: boolean;
	readonly margins: Readonly<Record<'left' | 'right' | 'top' | 'bottom', number>>;
}

const MODE = /^(?:(\d{1,5})x(\d{1,5})(M?)(R?)(?:-\d{1,2})?(?:@(\d{1,3}))?(i?)m?)?([eDd]?)$/;

/** Reads `video=`; null where it is none, or none that says anything of a connector. */
export function readVideoArgument(word: string): VideoArgument | null {
	const [, connector, text] = /^video=(?:([A-Za-z0-9-]+):)?(\S+)$/.exec(word) ?? [];
	if (text === undefined) return null;
	const parts = text.split(',');
	const found = MODE.exec(parts[0]!);
	const options = found ? parts.slice(1) : parts;
	// Options may stand without a mode; anything else is a name that is not known here.
	if (!found && !options.every((option) => /^[a-z_]+=/.test(option))) return null;
	const [, width, height, cvt, reduced, refresh, interlaced, force] = found ?? [];
	const margin = (side: string): number => {
		const px = options.find((option) => option.startsWith(`margin_${side}=`))?.split('=')[1] ?? '';
		return /^\d{1,4}$/.test(px) ? Number(px) : 0;
	};
	return {
		connector: connector ?? null,
		mode:
			width === undefined
				? null
				: {
						widthPx: Number(width),
						heightPx: Number(height),
						refreshHz: refresh === undefined ? null : Number(refresh),
						interlaced: interlaced === 'i',
						computed: cvt ? (reduced ? 'cvt-rb' : 'cvt') : 'no'
					},
		forced: force === 'e' || force === 'D',
		margins: { left: margin('left'), right: margin('right'), top: margin('top'), bottom: margin('bottom') }
	};
}
