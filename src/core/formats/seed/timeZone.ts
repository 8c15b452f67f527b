import { isTimeZone } from '../systemd/zone';

/** The time zone that a cloud-init user-data file sets, or null. One plain top-level key is all that is asked of it. */
export function readSeedTimeZone(userData: string): string | null {
	const line = userData.split('\n').find((text) => text.startsWith('timezone:'));
	const value = line
		?.slice('timezone:'.length)
		.split('#', 1)[0]!
		.trim()
		.replace(/^"([^"]*)"$/, '$1');
	return value !== undefined && isTimeZone(value) ? value : null;
}
