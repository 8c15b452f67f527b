import { readEdid, findEdids, toBase64, writeEdid } from '.';
import { vicTiming } from '../../standards/vicTable';
import { promised, type FuzzedReader } from '../../readers/reader';

const hexOf = (bytes: Uint8Array): string => Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join(' ');
const edid = (): Uint8Array => {
	const bytes = writeEdid({
		name: 'SET',
		widthMm: 400,
		heightMm: 300,
		modes: [16, 19].map((vic) => vicTiming(vic)!.timing),
		sound: { channels: 2, ratesHz: [48_000], bits: [16] },
		year: 2026
	});
	return bytes.ok ? bytes.value : new Uint8Array();
};

export default [
	{
		name: 'readEdid',
		samples: [edid()],
		read(bytes) {
			const read = readEdid(bytes);
			if (read.ok) for (const { timing } of read.value.modes) promised(timing.widthPx > 0, 'a mode has a width');
		}
	},
	{
		name: 'findEdids',
		samples: [toBase64(edid()), `HDMI-A-1\n${hexOf(edid())}\n`, edid()],
		read(bytes, text) {
			const read = findEdids(bytes, text);
			if (read.ok) promised(read.value.length > 0, 'what is found is something');
		}
	}
] satisfies readonly FuzzedReader[];
