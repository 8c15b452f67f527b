/** The three systems whose listings are read and whose commands are given. */
export type HostSystem = 'linux' | 'macos' | 'windows';

export interface Volume {
	readonly id: string;
	readonly name: string;
	readonly sizeBytes: number | null;
	readonly fileSystem: string;
	/** Where it can be reached now; "" when nowhere. */
	readonly mount: string;
}

/** A disk of the person's own computer, as far as its listing tells. Null: not told. */
export interface HostDisk {
	readonly system: HostSystem;
	/** "/dev/sdb", "disk4", "2". */
	readonly id: string;
	readonly model: string;
	readonly serial: string;
	readonly sizeBytes: number | null;
	readonly bus: string;
	readonly removable: boolean | null;
	readonly internal: boolean | null;
	readonly readOnly: boolean | null;
	/** It holds what the computer runs on, or something else in use. */
	readonly holdsSystem: boolean;
	readonly volumes: readonly Volume[];
}

/** Tells one disk from another over two listings, also when its name changes. */
export const fingerprint = ({ system, id, model, serial, sizeBytes }: HostDisk): string =>
	[system, serial || id, model, sizeBytes].join('|');
