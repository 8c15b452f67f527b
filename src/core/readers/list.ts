/**
 * Every reader of what strangers hand in, with samples of what it reads: the one list that the fuzzing goes through. A reader
 * that is neither here nor among the `INNER` ones, which are reached through another, fails the test beside it.
 */
import { itemOfEntry } from '../links/sources/lists/listEdits';
import { readDiskutilInfo, readDiskutilList, readDiskutilPlist } from '../disks/macos';
import { judgeDisks } from '../disks/verdict';
import { readDisks } from '../disks/read';
import { readAlsaConf } from '../formats/alsa/conf';
import { readControlWord } from '../formats/alsa/controlName';
import { readDeviceName } from '../formats/alsa/deviceName';
import { addKernelArgs, addToExtlinux } from '../formats/boot/kernelArgs';
import { checkPassword } from '../formats/crypt/password';
import { readAddress, readCidr } from '../formats/ip/cidr';
import { readJson } from '../formats/json/json';
import { readKeyfile } from '../formats/keyfile/keyfile';
import { readMpvConf } from '../formats/mpv/conf';
import { readNftables, writeNftables } from '../formats/nftables/nftables';
import { readPlaylist, readPreset } from '../formats/playlist';
import { parseShell } from '../engines/machine/shell';
import { readAptConf } from '../formats/aptConf';
import { parse } from 'yaml';
import { readNetworkConfig } from '../formats/seed/networkConfig';
import { readUserData } from '../formats/seed/userData';
import { readPublicKey } from '../formats/ssh/publicKey';
import { readCalendar } from '../formats/systemd/calendar';
import { readExec, readTimeSpanMs, readUnit } from '../formats/systemd/unit';
import { findEdids, readEdid, toBase64, writeEdid } from '../formats/edid';
import { readVideoArgument } from '../formats/boot/kernelLine';
import { readHolidays } from '../formats/holidays';
import { venueSchema } from '../plan/venue';
import { shownIn } from '../links/notices/pages/content';
import { readByHand } from '../files/byHand';
import { isId } from '../basics/text';
import { readManifest } from '../links/card/send';
import { countPlayed, readPlayed } from '../links/notices/kiosk/played';
import { newZone } from '../links/notices/settings';
import { readRuleLine, writeRuleLine } from '../links/programme/rules/ruleText';
import { readSunTable } from '../onAir/sun';
import { readFileListing } from '../formats/fileListing';
import { readListing } from '../links/sources/stores/storeListing';
import { fromListing } from '../links/sources/stores/fromListing';
import { newStore } from '../links/sources/stores/stores';
import { mediaSchema } from '../parts/media';
import { chplChapters, id3Chapters, matroskaChapters } from '../formats/chapters';
import { readCodecString } from '../formats/codecString';
import { readDecoderConfig } from '../formats/decoderConfig';
import { readPixelFormat } from '../formats/pixelFormat';
import { readHls } from '../formats/hls';
import { readStreamHead } from '../formats/streamHead';
import { readMp4 } from '../formats/mp4';
import { readStillSize } from '../formats/picture/size';
import { readRate } from '../links/picture/modes/cadence';
import { vicTiming } from '../standards/vicTable';
import { readFlac } from '../formats/wav/flac';
import { readWav } from '../formats/wav/wav';
import { readXml } from '../formats/xml/tree';
import { readDigests } from '../image/digest';
import { readFileSystem } from '../image/fileSystem';
import { sniffForm } from '../image/form';
import { readTable } from '../image/partitions';
import { ImageScanner } from '../image/scanner';
import { readPartsFile } from '../parts/file';
import { openWorkshop } from '../plan/open';
import { sourcesSettings } from '../links/sources/settings';
import { probeFactsSchema } from '../probe';
import { readProbe } from '../probe';

/** A reader with samples from which mutated texts are made. */
export interface FuzzedReader {
	readonly name: string;
	/** A file beside the readers' own tests ("disks/fixtures/macos-list.txt"), or text. */
	readonly samples: readonly ({ readonly file: string } | string | Uint8Array)[];
	/** What it gave, or a promise of that. Throws only where the reader does, or where that is not what it promises. */
	read(bytes: Uint8Array, text: string): unknown;
}

const promised = (holds: boolean, what: string): void => {
	if (!holds) throw new Error(`promise broken: ${what}`);
};
const file = (path: string) => ({ file: path });
const wav = (): Uint8Array => {
	const bytes = new Uint8Array(200);
	bytes.set(new TextEncoder().encode('RIFF\u00c0\0\0\0WAVEfmt \u0010\0\0\0\u0001\0\u0002\0'));
	new DataView(bytes.buffer).setUint32(24, 48_000, true);
	new DataView(bytes.buffer).setUint16(34, 16, true);
	bytes.set(new TextEncoder().encode('data'), 36);
	return bytes;
};
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
const hexOf = (bytes: Uint8Array): string => Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join(' ');
/** The boxes of a film without its frames. */
const film = (): Uint8Array => {
	const box = (type: string, ...parts: (readonly number[])[]): number[] => {
		const inner = parts.flat();
		const size = inner.length + 8;
		return [0, 0, size >> 8, size & 0xff, ...[...type].map((c) => c.charCodeAt(0)), ...inner];
	};
	const zeros = (n: number): number[] => Array<number>(n).fill(0);
	const header = [...zeros(12), 0, 0, 3, 0xe8, 0, 0, 7, 0xd0, ...zeros(8)];
	const entry = box('avc1', [...zeros(24), 5, 0, 2, 0xd0, ...zeros(50)], box('avcC', [1, 100, 0, 31]));
	const stbl = box(
		'stbl',
		box('stsd', [0, 0, 0, 0, 0, 0, 0, 1], entry),
		box('stts', [0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 50, 0, 0, 0, 40])
	);
	const handler = [...zeros(8), ...[...'vide'].map((c) => c.charCodeAt(0)), ...zeros(12)];
	const mdia = box('mdia', box('mdhd', header), box('hdlr', handler), box('minf', stbl));
	return Uint8Array.from([...box('ftyp', zeros(8)), ...box('moov', box('mvhd', header), box('trak', mdia))]);
};
/** What a list of ours takes: a playlist that was read must fit as it is. */
function readIntoPlan(bytes: Uint8Array): void {
	const read = readPlaylist(bytes);
	if (!read.ok) return;
	for (const { extra } of read.value.entries) readPreset(extra);
	const items = read.value.entries.map((entry, n) => itemOfEntry(entry, `e${n}`));
	const fits = sourcesSettings.safeParse({
		used: true,
		listTitle: read.value.title ?? '',
		header: read.value.header,
		items,
		waitForNetwork: true,
		carry: 'set' as const,
		stores: [],
		bufferSec: 0,
		pauses: null,
		rules: [],
		chooseAt: []
	});
	promised(
		fits.success,
		`the list fits a plan: ${fits.error?.issues[0]?.path.join('.')} ${fits.error?.issues[0]?.message}`
	);
}

/** All readers of text; a test compares it with the files that export one. */
export const FUZZED: readonly FuzzedReader[] = [
	{
		name: 'readPlayed',
		samples: [
			'[12:1127/090000.1:INFO:CONSOLE(1)] "yphos-page shows 2026-11-27T09:00:00.000Z ["page-tides","Tides","=rule"]", source: file:///opt/yphos/notices/player.js (1)\nyphos-page alive 2026-11-27T09:01:00.000Z \nyphos-page shows 2026-11-27T09:01:20.000Z ["s1","Ferry, \\"late\\"",""]\n'
		],
		read(_, text) {
			const read = readPlayed(text);
			if (!read.ok) return;
			promised(!/^[=+@-]/m.test(countPlayed(read.value)), 'no cell of CSV is a formula');
			promised(
				read.value.every(({ forMs }) => forMs === null || forMs >= 0),
				'nothing is shown for less than no time'
			);
		}
	},
	{
		name: 'readByHand',
		samples: ['page-tides 1795777825\n', 'none 0\n'],
		read(_, text) {
			const read = readByHand(text);
			promised(read === null || (isId(read.id) && read.untilUtcMs > 0), 'what is asked for has a name and an end');
		}
	},
	{
		name: 'readManifest',
		samples: [
			'{"yphos":"card set","files":[{"path":"verify.sh","sha256":"e591b0d4","size":2332,"mode":"0755","owner":"root:root","why":"Reads only."}]}'
		],
		read: (_, text) => readManifest(text)
	},
	{
		name: 'readFeed',
		samples: [
			'Time,Height\n2026-11-27 05:12,"3,4 m"\n17:38,"a ""b"""\n',
			'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;TZID=Europe/Oslo:20261201T090000\r\nDURATION:PT90M\r\nRRULE:FREQ=WEEKLY;BYDAY=TU,TH;COUNT=9\r\nEXDATE;TZID=Europe/Oslo:20261203T090000\r\nSUMMARY:Tour\r\nLOCATION:Lamp\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:1\r\nRECURRENCE-ID;TZID=Europe/Oslo:20261208T090000\r\nDTSTART:20261208T110000Z\r\nSUMMARY:Tour\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n',
			'<?xml version="1.0"?><rss version="2.0"><channel><title>Harbour</title><item><title>Ferry &lt;b&gt;off&lt;/b&gt; &amp; late</title><pubDate>Fri, 27 Nov 2026 08:00:00 GMT</pubDate></item></channel></rss>',
			'{"place":"Skerrin","updated":"2026-11-27T06:00:00Z","now":{"temperatureC":6.5,"windMs":9,"windFromDeg":225,"sky":"rain"},"days":[{"date":"2026-11-27","highC":8,"lowC":4,"rainMm":6,"sky":"rain"}]}'
		],
		read(_, text) {
			for (const [shows, kind] of [
				['table', 'table'],
				['curve', 'table'],
				['calendar', 'calendar'],
				['news', 'news'],
				['weather', 'weather']
			] as const) {
				const shown = shownIn(newZone('z', shows, { x: 0, y: 0, w: 12, h: 6 }, { feed: 'f' }), {
					nowUtcMs: Date.UTC(2026, 10, 27, 9),
					venue: { timeZone: 'Europe/Oslo', opening: [], closedOnHolidays: false, holidays: [] },
					units: 'metric',
					language: 'en-GB',
					feed: () => ({ kind, title: '', text, fetchedUtcMs: null })
				});
				promised(shown.trouble !== null || shown.content.kind !== 'nothing', 'a zone shows something or says why not');
			}
		}
	},
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
		name: 'readRuleLine',
		samples: [
			'film days=12345 nth=last week=1 season=1001-331 valid=20260101-20271231 only=20261224 never=20261225,20261226 each=60-2 from=540 until=set+30 title=Open'
		],
		read(_, text) {
			const line = readRuleLine(text);
			if (line && line !== 'broken') readRuleLine(writeRuleLine(line));
		}
	},
	{
		name: 'readSunTable',
		samples: ['1 1/595/915 3/590/920\n2 1/540/990\n'],
		read: (_, text) => readSunTable(text)
	},
	{
		name: 'readPlaylist',
		samples: [
			'<opml version="2.0"><head><title>t</title></head><body><outline text="a" URL="http://a.example/" image="l"><outline text="b" url="http://b.example/"/></outline></body></opml>',
			'#EXTM3U x="a, b"\n#PLAYLIST:Nights\n#EXTINF:12 logo="a, b.png",Ferry, by night\nferry.flac\n#EXTGRP:x\nhttp://radio.example/a\n',
			'[playlist]\nFile1=a.ogg\nTitle1="Tide"\nLength1=65\nNumberOfEntries=1\nVersion=2\n',
			'<?xml version="1.0"?>\n<playlist version="1" xmlns="http://xspf.org/ns/0/"><title>A &amp; B</title><trackList><track><location>a%20b.flac</location><title>T</title><creator>C</creator><duration>61000</duration></track></trackList></playlist>'
		],
		read: readIntoPlan
	},
	{
		name: 'readProbe',
		samples: [
			file('probe/fixtures/emulated.txt'),
			'user@board:~ $ aplay -l\ncard 0: Id [Name], device 0: PCM [PCM]\n',
			"Simple mixer control 'PCM',1\n  Capabilities: pvolume\n  Front Left: Playback 1 [2%] [-30.00dB]\n"
		],
		read(_, text) {
			const read = readProbe(text);
			if (read.ok) promised(probeFactsSchema.safeParse(read.value.facts).success, 'the facts fit their schema');
		}
	},
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
	{ name: 'readMp4', samples: [film()], read: (bytes) => readMp4(bytes) },
	{
		name: 'readStillSize',
		samples: [
			new Uint8Array([
				0x89,
				0x50,
				0x4e,
				0x47,
				13,
				10,
				26,
				10,
				0,
				0,
				0,
				13,
				0x49,
				0x48,
				0x44,
				0x52,
				...Array<number>(20).fill(1)
			]),
			new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 0, 4, 1, 2, 0xff, 0xc0, 0, 11, 8, 1, 0, 2, 0, 1, 1, 17, 0, 0])
		],
		read: (bytes) => readStillSize(bytes)
	},
	{
		name: 'readVideoArgument',
		samples: [
			'video=HDMI-A-1:1920x1080M@50iD,margin_left=4,rotate=90',
			'video=1280x720',
			'video=HDMI-A-1:D,margin_top=3'
		],
		read: (_, text) => readVideoArgument(text)
	},
	{
		name: 'readListing',
		samples: [
			'\n\tSharename       Type      Comment\n\t---------       ----      -------\n\tmedia           Disk      Films\n\tIPC$            IPC       \n',
			'Disk|media|Films\n',
			'Export list for files.local:\n/export/films 192.168.40.0/24\n',
			'//files.local/media on /srv/music type cifs (ro)\n'
		],
		read: (_, text) => readListing(text)
	},
	{
		name: 'readFileListing',
		samples: [
			'7\tEvenings/a.flac\n9\tb.mp3\n',
			'.:\ntotal 8\n-rw-r--r-- 1 root root 7 Nov 26 18:00 a b.flac\n\n./Evenings:\n',
			'{"streams":[{"codec_type":"audio","codec_name":"flac","sample_rate":"44100","channels":2}],"format":{"filename":"./a.flac","duration":"2.0","size":"9"}}'
		],
		read: (bytes) => {
			const listing = readFileListing(bytes);
			const store = newStore('nfs', 'a', []);
			if (listing.ok)
				for (const media of fromListing(listing.value, store).media)
					promised(mediaSchema.safeParse(media).success, 'facts fit their schema');
		}
	},
	{ name: 'readRate', samples: ['23.976', '25', '59.94'], read: (_, text) => readRate(text) },
	{
		name: 'readDisks',
		samples: [
			'linux-laptop.json',
			'linux-machine.json',
			'macos-list.txt',
			'macos-list.plist',
			'macos-info.txt',
			'windows-disks.txt'
		].map((name) => file(`disks/fixtures/${name}`)),
		read(_, text) {
			const read = readDisks(text);
			if (!read.ok) return;
			for (const { disk, verdict } of judgeDisks(read.value.disks, { imageBytes: 2e9, cardGb: 32 }))
				promised(verdict !== 'card' || disk.inUse === false, 'a card is known not to be in use');
		}
	},
	{
		name: 'readDiskutilList',
		samples: [file('disks/fixtures/macos-list.txt')],
		read: (_, text) => readDiskutilList(text)
	},
	{
		name: 'readDiskutilPlist',
		samples: [file('disks/fixtures/macos-list.plist')],
		read: (_, text) => readDiskutilPlist(text)
	},
	{
		name: 'readDiskutilInfo',
		samples: [file('disks/fixtures/macos-info.txt')],
		read: (_, text) => readDiskutilInfo(text)
	},
	{
		name: 'openWorkshop',
		samples: [2, 3, 4, 5].map((n) => file(`plan/fixtures/version-${n}.json`)),
		read: (_, text) => openWorkshop(text, 'UTC')
	},
	{
		name: 'readPartsFile',
		samples: [
			'{"yphos":"parts","version":1,"parts":[{"kind":"card","id":"c","name":"Card","sure":"typical","price":9,"capacityGb":32,"writeMbs":20,"readMbs":80,"enduranceTb":null}]}'
		],
		read: (_, text) => readPartsFile(text)
	},
	{ name: 'readJson', samples: ['{"a":[1,{"b":"c\\n\\u0041"}],"d":null}'], read: (_, text) => readJson(text) },
	{
		name: 'readXml',
		samples: ['<?xml version="1.0"?><a x="1"><!-- c --><b>t &lt; <![CDATA[x]]></b><c/></a>'],
		read: (_, text) => readXml(text)
	},
	{
		name: 'readPublicKey',
		samples: ['ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIAsY+gk/mSXIbKws7gQl3MdINidjazRfiNwZNyr9AOFJ me@home'],
		read: (_, text) => readPublicKey(text)
	},
	{
		name: 'readDigests',
		samples: [
			`${'ab'.repeat(32)}  night.img.xz\nSHA256 (b.img) = ${'cd'.repeat(32)}\n`,
			'-----BEGIN PGP SIGNATURE-----\n'
		],
		read: (_, text) => readDigests(text)
	},
	{ name: 'readCidr', samples: ['192.168.40.0/24', '2001:db8::/32'], read: (_, text) => readCidr(text) },
	{ name: 'readAddress', samples: ['192.168.40.7', '::ffff:1.2.3.4'], read: (_, text) => readAddress(text) },
	{ name: 'checkPassword', samples: ['three gulls in a row'], read: (_, text) => checkPassword(text, 'keeper') },
	{ name: 'readWav', samples: [wav()], read: (bytes) => readWav(bytes) },
	{
		name: 'readFlac',
		samples: [Uint8Array.from([0x66, 0x4c, 0x61, 0x43, 0, 0, 0, 34, ...Array<number>(40).fill(7)])],
		read: (bytes) => readFlac(bytes)
	},
	{
		name: 'readTable',
		samples: [file('image/fixtures/mbr.img.gz'), file('image/fixtures/gpt.img.gz')],
		read: (bytes) => readTable(bytes)
	},
	{
		name: 'readFileSystem',
		samples: [file('image/fixtures/mbr.img.gz')],
		read: (bytes) => readFileSystem(bytes.subarray(1024))
	},
	{
		name: 'ImageScanner',
		samples: [file('image/fixtures/mbr.img.gz'), file('image/fixtures/gpt.img.gz')],
		read(bytes) {
			const scanner = new ImageScanner();
			scanner.push(bytes);
			scanner.finish();
			sniffForm(bytes);
		}
	},
	{
		name: 'readAlsaConf',
		samples: ['pcm.!default {\n\ttype plug\n\tslave.pcm "hw:CARD=Field24,DEV=0"\n}\n'],
		read: (_, text) => readAlsaConf(text)
	},
	{
		name: 'readControlWord',
		samples: ["'PCM',1", 'Master'],
		read: (_, text) => readControlWord(text)
	},
	{
		name: 'readDeviceName',
		samples: ['hw:CARD=Field24,DEV=0', 'iec958:CARD=X,AES0=0x4'],
		read: (_, text) => readDeviceName(text)
	},
	{
		name: 'readKeyfile',
		samples: ['[connection]\nid=a\\sb\n[wifi]\nssid=72;105;\n[__proto__]\nx=1\n'],
		read: (_, text) => readKeyfile(text)
	},
	{
		name: 'readMpvConf',
		samples: ['audio-device=%6%🎵ab\nvolume="50" # x\nno-video\n[profile]\n'],
		read: (_, text) => readMpvConf(text)
	},
	{
		name: 'readNftables',
		samples: [
			writeNftables([{ port: 22, protocol: 'tcp' }], ['192.168.40.0/24', 'fd00::/8'])
				.map((line) => line.text)
				.join('\n')
		],
		read: (_, text) => readNftables(text)
	},
	{
		name: 'readAptConf',
		samples: ['Acquire::http::Dl-Limit "250";\nAPT::Periodic::Unattended-Upgrade "0";\n'],
		read: (_, text) => readAptConf(text)
	},
	{
		name: 'readUserData',
		samples: [
			'#cloud-config\ntimezone: "Atlantic/Faroe"\nruncmd:\n  - [bash, "/boot/firmware/yphos/apply.sh"]\n  - echo x\nusers:\n  - name: "a"\n    sudo: "ALL=(ALL) ALL"\n'
		],
		read: (_, text) => readUserData(text)
	},
	{
		name: 'readNetworkConfig',
		samples: ['version: 2\nethernets:\n  cable:\n    match: {name: "e*"}\n    dhcp4: true\n'],
		read: (_, text) => readNetworkConfig(text, parse)
	},
	{
		name: 'parseShell',
		samples: [
			'set -e\nfor x in "$@"; do [ -e "$x" ] && echo "${x##*/}" >>/tmp/f || exit $((1 + 2)); done\nf() { local a=$(cat <x | sort); }\ncase $a in b*|c) f ;; esac\n'
		],
		read: (_, text) => parseShell(text)
	},
	{
		name: 'readCalendar',
		samples: ['Mon..Fri *-*-* 07:30:00 Europe/Oslo', '*-*~01/7:00'],
		read: (_, text) => readCalendar(text)
	},
	{
		name: 'readUnit',
		samples: ['[Unit]\nDescription=a \\\n b\n[Service]\nExecStart=/bin/x "a b" $$x %%\n'],
		read: (_, text) => readUnit(text)
	},
	{ name: 'readExec', samples: ['-/bin/x "a b" \'c\' \\x41 \\u00e5'], read: (_, text) => readExec(text) },
	{ name: 'readTimeSpanMs', samples: ['1min 30s', 'infinity'], read: (_, text) => readTimeSpanMs(text) },
	{
		name: 'addToExtlinux',
		samples: ['label a\r\n\tlinux /x\r\n\tappend root=/dev/x "a b"\r\n'],
		read: (_, text) => addToExtlinux(text, ['quiet'])
	},
	{
		name: 'addKernelArgs',
		samples: ['root=/dev/x "a b" quiet'],
		read: (_, text) => addKernelArgs(text, ['quiet'])
	}
];

/** Reached only through a reader of the list above. */
export const INNER: readonly string[] = [
	...['readLines', 'readLs', 'readProbes', 'readOpml', 'readPreset'],
	...['readM3u', 'readPls', 'readXspf', 'decodeText', 'parseInstall'],
	...['readLsblk', 'readGetDisk', 'readPart', 'sniffForm'],
	...['readBase', 'readCta', 'readDetailed', 'readDisplayId', 'readTypeSeven'],
	...['readEdidHex', 'readJsonListings', 'readOneValue', 'readSystem', 'splitSections'],
	...['readAgenda', 'readNews', 'readWeather', 'readRule'],
	...['readAplayList', 'readAplayNames', 'readCards', 'readEld', 'readMixers', 'readStream']
];
