/** Figures for people: number, thin space, unit. A true minus sign, so that columns line up. */
const THIN = '\u2009';

/** A number with a fixed number of digits, a thin space and its unit. */
export const withUnit = (value: number, digits: number, unit: string): string =>
	`${(Object.is(value, -0) ? 0 : value).toFixed(digits).replace('-', '\u2212')}${THIN}${unit}`;

/** 44100 → "44.1 kHz". */
export const formatHz = (hz: number): string =>
	hz >= 1000 ? withUnit(hz / 1000, hz % 1000 === 0 ? 0 : hz % 100 === 0 ? 1 : 2, 'kHz') : withUnit(hz, 0, 'Hz');

/** Milliseconds as seconds with a tenth, minutes and hours beyond. */
export function formatSeconds(ms: number): string {
	if (ms < 120_000) return withUnit(ms / 1000, 1, 's');
	const seconds = Math.round(ms / 1000);
	if (seconds < 7200) return `${Math.floor(seconds / 60)}${THIN}min ${seconds % 60}${THIN}s`;
	const minutes = Math.round(seconds / 60);
	return `${Math.floor(minutes / 60)}${THIN}h ${minutes % 60}${THIN}min`;
}

/** Decimal multiples, as card and drive makers count. */
export function formatBytes(bytes: number): string {
	if (bytes < 1000) return withUnit(bytes, 0, 'B');
	const index = Math.min(4, Math.floor(Math.log10(bytes) / 3));
	const scaled = bytes / 1000 ** index;
	return withUnit(scaled, scaled >= 100 ? 0 : 1, ['B', 'kB', 'MB', 'GB', 'TB'][index]!);
}

/** Bits a second, in the unit that keeps it short. */
export const formatBps = (bps: number): string =>
	bps >= 1e6 ? withUnit(bps / 1e6, 1, 'Mbit/s') : withUnit(bps / 1e3, 0, 'kbit/s');
