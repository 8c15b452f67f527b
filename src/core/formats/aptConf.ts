import { linesOf } from './lines';

/** Settings of apt in the form of one line each: `Key "value";`. Others are not read. Source: apt.conf(5). */
export const readAptConf = (text: string): ReadonlyMap<string, string> =>
	new Map(
		linesOf(text).flatMap((line) => {
			const [key, value, ...rest] = line.trim().split(' ');
			const quoted = /^"([^"]*)";$/.exec(value ?? '')?.[1];
			return key && quoted !== undefined && rest.length === 0 ? [[key, quoted] as const] : [];
		})
	);
