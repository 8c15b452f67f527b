/** The three systems whose listings are read and whose commands are given. */
export type HostSystem = 'linux' | 'macos' | 'windows';

/** What is on a disk, as its own system shows it: one partition or volume. */
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
	/** It holds what the computer runs on, or something else in use. Null: the listing has no column that would say so. */
	readonly inUse: boolean | null;
	readonly volumes: readonly Volume[];
}

/** Tells one disk from another over two listings, also when its name changes; twins, such as cheap readers without a serial number, have the same. */
export const fingerprint = ({ system, id, model, serial, sizeBytes }: HostDisk): string =>
	JSON.stringify([system, serial || id, model, sizeBytes]);

/** Nothing but its name sets it apart from another: same model, same serial number or none, same size. */
export const areTwins = (a: HostDisk, b: HostDisk): boolean =>
	a.model === b.model && a.serial === b.serial && a.sizeBytes === b.sizeBytes;

/** What each system can print as the name of a disk or of a part of one: nothing else ever reaches a command. */
const NAMES: Readonly<Record<HostSystem, RegExp>> = {
	linux: /^\/dev\/(?:[A-Za-z0-9][\w.+!-]{0,100}\/){0,3}[A-Za-z0-9][\w.+!-]{0,100}$/,
	macos: /^disk\d{1,4}(?:s\d{1,4}){0,3}$/,
	windows: /^\d{1,4}$/
};
/** Whether `id` has the form of a whole disk's name on that system; partitions have not. */
export const isDiskName = (system: HostSystem, id: string): boolean => NAMES[system].test(id);
