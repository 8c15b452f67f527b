import type { SettingPath } from './setting';

/** One line of a file and the setting that caused it. A secret line is never shown, stored or compared. */
export interface CardLine {
	readonly text: string;
	readonly setting: SettingPath;
	readonly secret?: true;
}

interface CardFileBase {
	/** Below the card's root: "boot/yphos/root/etc/asound.conf". */
	readonly path: string;
	/** What it is called on the endpoint, where it lies on the first partition under another name. */
	readonly target?: string;
	readonly mode: '0644' | '0755' | '0600';
	readonly why: string;
}
/** A file of the card set: lines that know their setting, or bytes. */
export type CardFile = CardFileBase &
	(
		| { readonly lines: readonly CardLine[] }
		| {
				readonly bytes: Uint8Array;
				readonly setting: SettingPath;
				/** When it is known already. */ readonly sha256?: string;
		  }
		| {
				/** So large that it is read only when it is written out. */
				readonly blob: Blob;
				readonly setting: SettingPath;
				readonly sha256: string;
		  }
	);
