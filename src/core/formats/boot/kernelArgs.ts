import { linesOf } from '../lines';

/**
 * The kernel's arguments, where a board's firmware reads them. Words are parted by spaces; double quotes hold spaces together.
 * Source: kernel-parameters in the kernel's admin guide; the boot loader specification of U-Boot's extlinux.conf.
 */
export const kernelWords = (line: string): string[] => line.trim().match(/(?:[^\s"]|"[^"]*(?:"|$))+/g) ?? [];

const nameOf = (word: string): string => word.split('=')[0]!;

/** Adds arguments, in place of those of the same name; the rest stays as and where it was. */
export function addKernelArgs(line: string, args: readonly string[]): string {
	const names = new Set(args.map(nameOf));
	return [...kernelWords(line).filter((word) => !names.has(nameOf(word))), ...args].join(' ');
}

/**
 * The same for every `append` of an extlinux.conf, and overlays behind its `fdtoverlays`; a label without such a line gets one.
 * Source: U-Boot, doc/README.pxe, "fdtoverlays".
 */
export function addToExtlinux(text: string, args: readonly string[], overlays: readonly string[] = []): string[] {
	const out: string[] = [];
	let lacks = { append: false, overlays: false };
	const close = (): void => {
		if (lacks.append) out.push(`\tappend ${args.join(' ')}`);
		if (lacks.overlays) out.push(`\tfdtoverlays ${overlays.join(' ')}`);
		lacks = { append: false, overlays: false };
	};
	for (const line of linesOf(text.trimEnd())) {
		const append = /^(\s*append\s)(.*)$/i.exec(line);
		const named = /^(\s*fdtoverlays\s)(.*)$/i.exec(line);
		if (/^\s*label\s/i.test(line)) close();
		if (/^\s*(?:linux|kernel)\s/i.test(line)) lacks = { append: args.length > 0, overlays: overlays.length > 0 };
		if (append) lacks.append = false;
		if (named) lacks.overlays = false;
		if (append) out.push(`${append[1]}${addKernelArgs(append[2]!, args)}`);
		else if (named) out.push(`${named[1]}${[...new Set([...kernelWords(named[2]!), ...overlays])].join(' ')}`);
		else out.push(line);
	}
	close();
	return out;
}
