import { hasAt } from './bytes';

/** How an image is packed. */
export type ImageForm = 'raw' | 'gzip' | 'xz' | 'zstd' | 'zip';

/** By content, never by name. Source: RFC 1952, 2.3.1; the .xz format 1.1.0, 2.1.1.1; RFC 8878, 3.1.1; APPNOTE 6.3.10, 4.3.7. */
export function sniffForm(head: Uint8Array): ImageForm {
	if (hasAt(head, 0, [0x1f, 0x8b])) return 'gzip';
	if (hasAt(head, 0, [0xfd, 0x37, 0x7a, 0x58, 0x5a, 0])) return 'xz';
	if (hasAt(head, 0, [0x28, 0xb5, 0x2f, 0xfd])) return 'zstd';
	if (hasAt(head, 0, 'PK\u0003\u0004')) return 'zip';
	return 'raw';
}
