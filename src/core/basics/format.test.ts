import { expect, it } from 'vitest';
import { formatBps, formatBytes, formatHz, formatSeconds, withUnit } from './format';

it.each([
	[formatHz(44_100), '44.1 kHz'],
	[formatHz(48_000), '48 kHz'],
	[formatHz(11_025), '11.03 kHz'],
	[formatHz(440), '440 Hz'],
	[formatSeconds(9_140), '9.1 s'],
	[formatSeconds(600_000), '10 min 0 s'],
	[formatSeconds(86_400_000), '24 h 0 min'],
	[formatBytes(0), '0 B'],
	[formatBytes(999), '999 B'],
	[formatBytes(705_644), '706 kB'],
	[formatBytes(25_400_000_000), '25.4 GB'],
	[formatBps(128_000), '128 kbit/s'],
	[formatBps(2_304_000), '2.3 Mbit/s'],
	[withUnit(-24, 1, 'dB'), '\u221224.0 dB'],
	[withUnit(-0, 0, 'dB'), '0 dB']
])('writes %s for people', (text, expected) => expect(text.replaceAll('\u2009', ' ')).toBe(expected));
