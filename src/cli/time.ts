import { readTimeSpanMs } from '$core/formats/systemd/unit';
import { Refusal } from './files';
import { type Flags, text } from './say';

export function startOf(flags: Flags): number {
	const at = text(flags, 'at');
	const ms = at === undefined ? Date.now() : Date.parse(at);
	if (Number.isNaN(ms)) throw new Refusal(`--at ${at} is no time. Write it like 2026-12-24T18:40:00Z.`);
	return ms;
}

export function span(value: string, flag: string): number {
	const ms = readTimeSpanMs(value);
	if (ms === null || !Number.isFinite(ms))
		throw new Refusal(`${flag} ${value} is no length of time. Write it like 90s, 5min or 24h.`);
	return ms;
}

export const lengthOf = (flags: Flags): number => span(text(flags, 'for') ?? '2min', '--for');
