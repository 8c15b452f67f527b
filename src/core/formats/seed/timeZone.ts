import { isTimeZone } from '../systemd/zone';

/** The time zone that a cloud-init user-data file sets, or null. One plain top-level key is all that is asked of it. */
export function readSeedTimeZone(userData: string): string | null {
	const value = /^timezone:\s*"?([^"\n#]+?)"?\s*$/m.exec(userData)?.[1] ?? null;
	return value !== null && isTimeZone(value) ? value : null;
}
