import type { CardSettings } from './settings';

/** Which file names the overlays of a board that starts this way, and is ours to write; null: nobody has said how it starts. */
export function startFileOf({ bootStyle, bootText }: CardSettings): 'config.txt' | 'extlinux.conf' | null {
	if (bootStyle === 'cmdline') return 'config.txt';
	return bootStyle === 'extlinux' && bootText.trim() !== '' ? 'extlinux.conf' : null;
}
