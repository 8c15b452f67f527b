import { linesOf } from '../lines';
import { kernelWords } from './kernelArgs';

/**
 * The overlays of the device tree that a start file names, each with its parameters. config.txt: `dtoverlay=` below [all] or no
 * section; extlinux.conf: `fdtoverlays` of any label. Source: the boards' firmware documentation; U-Boot, doc/README.pxe.
 */
export function overlaysIn(file: 'config.txt' | 'extlinux.conf', text: string): string[] {
	let counts = true;
	return linesOf(text).flatMap((line) => {
		if (file === 'extlinux.conf') {
			const named = /^\s*fdtoverlays\s(.*)$/i.exec(line);
			return named ? kernelWords(named[1]!) : [];
		}
		const section = /^\s*\[(.*)\]\s*$/.exec(line);
		if (section) counts = section[1] === 'all';
		const named = /^\s*dtoverlay=(\S+)\s*$/.exec(line);
		return counts && named ? [named[1]!] : [];
	});
}
