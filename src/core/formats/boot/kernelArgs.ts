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

/** The same for every `append` of an extlinux.conf; a label without one gets one. */
export function addToExtlinux(text: string, args: readonly string[]): string[] {
	const out: string[] = [];
	let open = false;
	const close = (): void => {
		if (open) out.push(`\tappend ${args.join(' ')}`);
		open = false;
	};
	for (const line of linesOf(text.trimEnd())) {
		const append = /^(\s*append\s)(.*)$/i.exec(line);
		if (/^\s*label\s/i.test(line)) close();
		if (/^\s*(?:linux|kernel)\s/i.test(line) && args.length) open = true;
		if (append) open = false;
		out.push(append ? `${append[1]}${addKernelArgs(append[2]!, args)}` : line);
	}
	close();
	return out;
}
