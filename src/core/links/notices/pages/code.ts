import { create } from 'qrcode';

/** Free modules on each side of a code. Source: ISO/IEC 18004, 5.3.8. */
export const QUIET_MODULES = 4;

/** A code's modules, row by row. */
export interface CodeModules {
	readonly size: number;
	readonly data: ArrayLike<number>;
}

/** A text as a QR code of medium error correction; null: it is too long for one, or empty. */
export function codeOf(text: string): CodeModules | null {
	if (text === '') return null;
	try {
		return create(text, { errorCorrectionLevel: 'M' }).modules;
	} catch {
		return null;
	}
}

/** Modules on a side; null: there is no such code. */
export const codeModulesOf = (text: string): number | null => codeOf(text)?.size ?? null;
