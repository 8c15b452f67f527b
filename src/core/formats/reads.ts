import { readHolidays } from './holidays';
import { venueSchema } from '../plan/venue';
import { readCodecString } from './codecString';
import { readDecoderConfig } from './decoderConfig';
import { readPixelFormat } from './pixelFormat';
import { readHls } from './hls';
import { readStreamHead } from './streamHead';
import { chplChapters, id3Chapters, matroskaChapters } from './chapters';
import { readAptConf } from './aptConf';
import { promised, type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readHolidays',
		samples: [
			'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VTIMEZONE\r\nTZID:W. Europe Standard Time\r\nBEGIN:STANDARD\r\nDTSTART:16010101T030000\r\nTZOFFSETFROM:+0200\r\nTZOFFSETTO:+0100\r\nRRULE:FREQ=YEARLY;INTERVAL=1;BYDAY=-1SU;BYMONTH=10\r\nEND:STANDARD\r\nBEGIN:DAYLIGHT\r\nDTSTART:16010101T020000\r\nTZOFFSETFROM:+0100\r\nTZOFFSETTO:+0200\r\nRRULE:FREQ=YEARLY;INTERVAL=1;BYDAY=-1SU;BYMONTH=3\r\nEND:DAYLIGHT\r\nEND:VTIMEZONE\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:20261225\r\nDTEND;VALUE=DATE:20261227\r\nRRULE:FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=25\r\nSUMMARY:Christmas\\, two days\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nDTSTART;TZID=W. Europe Standard Time:20270101T090000\r\nSUMMARY:At nine\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n'
		],
		read(_, text) {
			const read = readHolidays(text, 2026);
			if (!read.ok) return;
			const fits = venueSchema.shape.holidays.safeParse(read.value);
			promised(fits.success, `holidays fit a venue: ${fits.error?.issues[0]?.message}`);
		}
	},
	{
		name: 'readCodecString',
		samples: ['avc1.640028', 'hev1.4.10.L60.9D.8', 'vp09.02.10.10.01', 'av01.0.09M.10.0.110'],
		read: (_, text) => readCodecString(text)
	},
	{
		name: 'readDecoderConfig',
		// Of x264, fields of 10 bits at 4:2:2, and of x265.
		samples: [
			'017a0015ffe10017677a0015b6cd9444d8088000000300800000190f8a14cb01000668fba3cb22c0fefafa00',
			'0102200000009000000000001ef000fcfdfafa00000f03a00001001840010c01ffff02200000030090000003000003001e959809'
		].map((hex) => Uint8Array.from(hex.match(/../g)!, (byte) => parseInt(byte, 16))),
		read(bytes) {
			for (const codec of ['h264', 'h265']) {
				const said = readDecoderConfig(codec, bytes);
				if (said) promised(said.bitDepth >= 8 && said.bitDepth <= 16, 'as many bits as a film may have');
			}
		}
	},
	{
		name: 'readPixelFormat',
		samples: ['yuv422p10le', 'p010be', 'gbrap12le', 'gray16', 'nv12'],
		read(_, text) {
			const said = readPixelFormat(text);
			if (said) promised(said.bitDepth >= 1 && said.bitDepth <= 16, 'as many bits as a film may have');
		}
	},
	{
		name: 'readHls',
		samples: [
			'#EXTM3U\n#EXT-X-STREAM-INF:BANDWIDTH=1,CODECS="a,b"\na.m3u8\n',
			'#EXTM3U\n#EXT-X-MEDIA-SEQUENCE:7\n#EXTINF:9.0,\n7.ts\n#EXT-X-ENDLIST\n'
		],
		read: (_, text) => readHls(text)
	},
	{
		name: 'readStreamHead',
		samples: [Uint8Array.from({ length: 400 }, (_, n) => [0xff, 0xf1, 0x4c, 0x80, 0x01, 0x1f, 0xfc, 0][n % 8]!)],
		read: (bytes) => readStreamHead(bytes)
	},
	{
		name: 'chapters',
		samples: [
			Uint8Array.from([
				...[...'ID3'].map((c) => c.charCodeAt(0)),
				4,
				0,
				0,
				0,
				0,
				0,
				40,
				...[...'CHAP'].map((c) => c.charCodeAt(0)),
				0,
				0,
				0,
				20,
				0,
				0,
				97,
				...Array<number>(20).fill(0)
			]),
			Uint8Array.from([
				0x18, 0x53, 0x80, 0x67, 0x90, 0x10, 0x43, 0xa7, 0x70, 0x8b, 0x45, 0xb9, 0x88, 0xb6, 0x86, 0x91, 0x81, 1, 0x80,
				0x80
			]),
			Uint8Array.from([1, 0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 1, 65])
		],
		read: (bytes) => {
			for (const read of [chplChapters, id3Chapters, matroskaChapters])
				promised(read(bytes).length <= 500, 'no more than 500 chapters');
		}
	},
	{
		name: 'readAptConf',
		samples: ['Acquire::http::Dl-Limit "250";\nAPT::Periodic::Unattended-Upgrade "0";\n'],
		read: (_, text) => readAptConf(text)
	}
] satisfies readonly FuzzedReader[];
