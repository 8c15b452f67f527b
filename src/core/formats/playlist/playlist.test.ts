import { XMLValidator } from 'fast-xml-parser';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	oneLine,
	readM3u,
	readOpml,
	readPlaylist,
	readPreset,
	withPreset,
	writeM3u,
	writeOpml,
	writeXspf,
	readXspf
} from '.';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const line = fc
	.string({ unit: 'grapheme', minLength: 1, maxLength: 40 })
	.map(oneLine)
	.filter((text) => text !== '');
const entry = fc.record({
	location: fc.oneof(
		line.filter((text) => !text.startsWith('#') && !/^[a-z][a-z0-9+.-]*:/i.test(text)),
		fc.webUrl()
	),
	title: fc.option(line),
	durationSec: fc.option(fc.integer({ min: 1, max: 100_000 })),
	extra: fc.constant<string[]>([])
});

describe('M3U', () => {
	it('comes back whole from what we write', () => {
		fc.assert(
			fc.property(fc.array(entry, { minLength: 1, maxLength: 8 }), fc.option(line), (entries, title) => {
				const read = readM3u(writeM3u({ title, entries }));
				expect(read).toMatchObject({ ok: true, value: { title, entries } });
			})
		);
	});
	it('keeps what it does not know: head lines, directives, attributes', () => {
		const text =
			'#EXTM3U x-tvg="a, b"\n#PLAYLIST:Nights\n#EXTGRP:Sea\n#EXTINF:12 logo="a, b.png",Ferry, by night\nferry.flac\n#EXTVLCOPT:x=1\nhttp://radio.example/a?b=c#d\n';
		const read = readM3u(text);
		expect(read.ok && read.value.entries.map((e) => [e.location, e.title, e.durationSec])).toEqual([
			['ferry.flac', 'Ferry, by night', 12],
			['http://radio.example/a?b=c#d', null, null]
		]);
		expect(read.ok && writeM3u(read.value)).toBe(text);
	});
	it('reads a byte-order mark, Windows and old line ends, and says when it took Latin-1', () => {
		expect(readPlaylist(bytes('\ufeff#EXTM3U\r\na.mp3\r\n'))).toMatchObject({
			ok: true,
			value: { entries: [{ location: 'a.mp3' }], remarks: [] }
		});
		expect(readPlaylist(bytes('a.mp3\rb.mp3'))).toMatchObject({
			ok: true,
			value: { entries: [{ location: 'a.mp3' }, { location: 'b.mp3' }] }
		});
		const latin = readPlaylist(Uint8Array.from([...bytes('#EXTINF:3,Caf'), 0xe9, ...bytes('\ncafe.mp3\n')]));
		expect(latin).toMatchObject({ ok: true, value: { entries: [{ title: 'Café', location: 'cafe.mp3' }] } });
		expect(latin.ok && latin.value.remarks[0]).toMatch(/Latin-1/);
	});
	it('refuses a segment list and an empty list by name', () => {
		expect(readM3u('#EXTM3U\n#EXT-X-TARGETDURATION:6\nseg1.ts')).toMatchObject({
			ok: false,
			faults: [{ code: 'm3u-segments' }]
		});
		expect(readM3u('# nothing')).toMatchObject({ ok: false, faults: [{ code: 'm3u-empty' }] });
	});
	it('writes a path that begins with # so that it is no comment', () =>
		expect(
			writeM3u({ title: null, entries: [{ location: '#1.mp3', title: null, durationSec: null, extra: [] }] })
		).toContain('./#1.mp3'));
});

describe('XSPF', () => {
	it('comes back whole, and is well-formed', () => {
		fc.assert(
			fc.property(fc.array(entry, { minLength: 1, maxLength: 6 }), (entries) => {
				const text = writeXspf({ title: 'A & <B>', entries });
				expect(XMLValidator.validate(text)).toBe(true);
				const read = readXspf(text);
				expect(
					read.ok && read.value.entries.map((e) => [e.location.replace(/^\.\//, ''), e.title, e.durationSec])
				).toEqual(entries.map((e) => [e.location.replace(/^\.\//, ''), e.title, e.durationSec]));
			})
		);
	});
	it('keeps creator, album and picture through our own list and through an M3U', () => {
		const text = writeXspf({
			title: 'Nights',
			header: ['#XSPF-LIST:{"creator":"Keeper","license":"by hand"}'],
			entries: [
				{
					location: 'a b.flac',
					title: 'Gull & Co – Tide',
					durationSec: 61,
					extra: [
						'#XSPF-TRACK:{"identifier":"urn:x","title":"Tide","creator":"Gull & Co","image":"c.png","album":"Shore"}'
					]
				}
			]
		});
		expect(text).toContain('<creator>Gull &amp; Co</creator>');
		const read = readXspf(text);
		if (!read.ok) throw new Error('unreadable');
		expect(read.value.entries[0]).toMatchObject({ location: 'a b.flac', title: 'Gull & Co – Tide' });
		expect(writeXspf(read.value)).toBe(text);
		const throughM3u = readM3u(writeM3u(read.value));
		expect(throughM3u.ok && writeXspf(throughM3u.value)).toBe(text);
		expect(writeXspf({ ...read.value, entries: [{ ...read.value.entries[0]!, title: 'Ebb' }] })).toContain(
			'<title>Ebb</title>\n\t\t\t<image>'
		);
	});
	it('says the line of broken markup', () =>
		expect(readPlaylist(bytes('<playlist>\n<trackList></playlist>'))).toMatchObject({
			ok: false,
			faults: [{ code: 'xml-broken', where: 'line 2' }]
		}));
});

it('reads PLS in any order of its lines and says what it left out', () => {
	const read = readPlaylist(
		bytes(
			'[playlist]\nTitle2=Two\nFile2=http://b.example/\nFile1=a b.ogg\nLength1=65\nTitle3=Lost\nNumberOfEntries=3\nVersion=2\n'
		)
	);
	expect(read).toMatchObject({
		ok: true,
		value: {
			format: 'PLS',
			entries: [
				{ location: 'a b.ogg', durationSec: 65 },
				{ location: 'http://b.example/', title: 'Two' }
			]
		}
	});
	expect(read.ok && read.value.remarks).toHaveLength(1);
});

it('never throws or hangs, whatever the bytes', () => {
	fc.assert(fc.property(fc.uint8Array({ maxLength: 300 }), (data) => void readPlaylist(data)));
	fc.assert(fc.property(fc.string({ maxLength: 200 }), (text) => void readPlaylist(bytes(`<playlist>${text}`))));
});

describe('OPML', () => {
	const outline = `<?xml version="1.0"?><opml version="2.0"><head><title>Islands</title></head><body>
		<outline text="Harbours"><outline type="audio" text="Harbour &amp; Radio" URL="http://radio.example/h?a=1&amp;b=2" image="http://radio.example/h.png" language="en" country="Skerrin"/></outline>
		<outline type="rss" text="News" xmlUrl="http://news.example/feed"/>
		<outline type="link" title="Night" url="https://radio.example/night"/></body></opml>`;
	it('gives its stations, however deep, and says what is none', () => {
		const read = readPlaylist(bytes(outline));
		expect(read).toMatchObject({
			ok: true,
			value: {
				format: 'OPML',
				title: 'Islands',
				entries: [{ title: 'Harbour & Radio', location: 'http://radio.example/h?a=1&b=2' }, { title: 'Night' }]
			}
		});
		if (!read.ok) return;
		expect(read.value.remarks.join()).toContain('"News" is a feed');
		expect(readPreset(read.value.entries[0]!.extra)).toEqual({
			logo: 'http://radio.example/h.png',
			language: 'en',
			country: 'Skerrin'
		});
		expect(readOpml(writeOpml(read.value))).toMatchObject({
			ok: true,
			value: { title: 'Islands', entries: read.value.entries }
		});
	});
	it('comes back whole from what we write, and is well-formed', () =>
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						location: fc.webUrl(),
						title: line,
						durationSec: fc.constant(null),
						extra: fc.constant<string[]>([])
					}),
					{ minLength: 1, maxLength: 5 }
				),
				line,
				(entries, title) => {
					const text = writeOpml({ title, entries });
					expect(XMLValidator.validate(text)).toBe(true);
					expect(readOpml(text)).toMatchObject({ ok: true, value: { title, entries } });
				}
			)
		));
	it('is refused with a document type, and without a station', () => {
		expect(readPlaylist(bytes('<!DOCTYPE opml [<!ENTITY a "b">]><opml><body/></opml>'))).toMatchObject({
			ok: false,
			faults: [{ code: 'xml-dtd' }]
		});
		expect(readOpml('<opml><body><outline text="x"/></body></opml>')).toMatchObject({
			ok: false,
			faults: [{ code: 'opml-empty' }]
		});
	});
});

describe('what is said of a station', () => {
	it('is read from attributes with or without a prefix, and written beside the others', () => {
		const list = readM3u(
			'#EXTM3U\n#EXTINF:-1 tvg-id="7" tvg-logo="a.png" tvg-language="Norsk",Harbour\nhttp://a.example/\n'
		);
		if (!list.ok) throw new Error('not read');
		const { extra } = list.value.entries[0]!;
		expect(readPreset(extra)).toEqual({ logo: 'a.png', language: 'Norsk', country: '' });
		const changed = withPreset(extra, { logo: 'b "c".png', country: 'Skerrin' });
		expect(readPreset(changed)).toEqual({ logo: "b 'c'.png", language: 'Norsk', country: 'Skerrin' });
		const text = writeM3u({ title: null, entries: [{ ...list.value.entries[0]!, extra: changed }] });
		expect(text).toContain('#EXTINF:-1 tvg-id="7" tvg-language="Norsk" logo="b \'c\'.png" country="Skerrin",Harbour');
		expect(withPreset(withPreset([], { logo: 'x' }), { logo: '' })).toEqual([]);
	});
	it('has its picture in XSPF too', () => {
		const entries = [
			{
				location: 'http://a.example/',
				title: 'A',
				durationSec: null,
				extra: withPreset([], { logo: 'http://a.example/l.png' })
			}
		];
		const back = readXspf(writeXspf({ title: null, entries }));
		expect(back.ok && readPreset(back.value.entries[0]!.extra).logo).toBe('http://a.example/l.png');
	});
});
