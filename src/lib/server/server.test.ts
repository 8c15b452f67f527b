import { networkInterfaces } from 'node:os';
import { describe, expect, it } from 'vitest';
import { readHls } from '$core/formats/hls';
import { readStreamHead } from '$core/formats/streamHead';
import { fetchable, mayReach, Refused } from './guard';
import { standIn } from './standIn';

describe('where a stream may be fetched from', () => {
	it.each([
		['93.184.216.34', true],
		['2a00:1450::1', true],
		['127.0.0.1', false],
		['127.9.9.9', false],
		['0.0.0.0', false],
		['10.1.2.3', false],
		['172.15.255.255', true],
		['172.16.0.0', false],
		['172.31.255.255', false],
		['172.31.0.1', false],
		['172.32.0.1', true],
		['192.168.40.5', false],
		['169.254.169.254', false],
		['100.64.0.1', false],
		['224.0.0.251', false],
		['255.255.255.255', false],
		['::1', false],
		['::', false],
		['fe80::1', false],
		['fd00::1', false],
		['ff02::1', false],
		['::ffff:192.168.40.5', false],
		['::ffff:7f00:1', false],
		['::ffff:5db8:d822', true],
		['64:ff9b::a00:1', false],
		['2002:7f00:1::', false],
		['2001:db8::1', false],
		['nobody', false]
	])('%s: %s', (address, may) => expect(mayReach(address, null)).toBe(may));
	it('is also the venue’s own range where the person allows it, and never this machine', () => {
		expect(mayReach('192.168.40.5', '192.168.40.0/24')).toBe(true);
		expect(mayReach('::ffff:192.168.40.5', '192.168.40.0/24')).toBe(true);
		expect(mayReach('192.168.41.5', '192.168.40.0/24')).toBe(false);
		for (const range of ['127.0.0.0/8', '0.0.0.0/0', '0.0.0.0/8', 'all', '192.168.40.0', '10.0.0.0/99'])
			for (const address of ['127.0.0.1', '::1', '::ffff:127.0.0.1', '0.0.0.0', '192.168.40.5'])
				expect(mayReach(address, range), `${address} in ${range}`).toBe(false);
	});
	it('is no address of this computer, and nobody on the same wire alone, whatever is allowed', () => {
		const own = Object.values(networkInterfaces()).flatMap((all) =>
			(all ?? []).map(({ address }) => address.split('%')[0]!)
		);
		expect(own.length).toBeGreaterThan(0);
		for (const address of [...own, '169.254.169.254', '::ffff:169.254.0.1', 'fe80::1'])
			for (const range of ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '169.254.0.0/16', `${address}/32`, null])
				expect(mayReach(address, range), `${address} in ${range}`).toBe(false);
	});
	it('is nothing but http and https, without a password', () => {
		for (const text of [
			'file:///etc/passwd',
			'ftp://a.test/',
			'gopher://a.test',
			'javascript:1',
			'x',
			'',
			'http://u:p@a.test/'
		])
			expect(() => fetchable(text), text).toThrow(Refused);
		expect(fetchable('http://0x7f000001/').hostname).toBe('127.0.0.1');
	});
});

describe('the stand-in for the world’s stream servers', () => {
	const ask = (path: string, headers: Record<string, string> = {}): Response =>
		standIn(
			path.split('?')[0]!,
			new URL(`http://a.test/stand-in/${path}`),
			new Headers(headers),
			Date.parse('2026-11-26T12:00:01Z')
		);
	const bytes = async (answer: Response): Promise<Uint8Array> => new Uint8Array(await answer.arrayBuffer());

	it('misbehaves as it is asked to', () => {
		expect(ask('night?refuse').status).toBe(503);
		expect(ask('night?circle').headers.get('location')).toBe('night?circle');
		expect(ask('night?moved').headers.get('location')).toBe('night');
		expect(ask('nobody').status).toBe(404);
		expect(ask('constructor').status).toBe(404);
		for (const path of ['//evil.example', '/evil.example', 'a//b', 'a\\b', 'a\rb', 'a\nb', '../x', '', '\u2028', '.'])
			for (const query of ['moved', 'circle', 'refuse'])
				expect([404, 503], `${path}?${query}`).toContain(
					standIn(path, new URL(`http://a.test/?${query}`), new Headers(), 0).status
				);
		const page = ask('night?type');
		expect(page.headers.get('content-type')).toContain('text/html');
		void page.body?.cancel();
	});
	it('plays a station with its titles, and ends it when it is cut', async () => {
		const answer = ask('night?cut=0.5', { 'icy-metadata': '1' });
		expect(answer.headers.get('icy-metaint')).toBe('8000');
		const heard = await bytes(answer);
		expect(readStreamHead(heard)).toMatchObject({ codec: 'mp3', sampleRateHz: 44_100, bitRateBps: 192_000 });
		expect(new TextDecoder('latin1').decode(heard)).toContain('StreamTitle=');
		// Two seconds at once, and the half second.
		expect(heard.length).toBeGreaterThan(1.9 * 24_000);
		expect(heard.length).toBeLessThan(2.7 * 24_000);
	});
	it('gives a file whole or in part', async () => {
		const whole = await bytes(ask('harbour.aac'));
		const part = ask('harbour.aac', { range: 'bytes=100-199' });
		expect(part.status).toBe(206);
		expect(part.headers.get('content-range')).toBe(`bytes 100-199/${whole.length}`);
		expect(await bytes(part)).toEqual(whole.slice(100, 200));
		expect(await bytes(ask('harbour.aac', { range: 'bytes=-10' }))).toEqual(whole.slice(-10));
		expect(ask('harbour.aac', { range: `bytes=${whole.length}-` }).status).toBe(416);
	});
	it('has an HTTP live stream whose segments go on with the clock', async () => {
		const variants = readHls(await ask('tide.m3u8').text());
		expect(variants).toMatchObject({
			value: { kind: 'variants', variants: [{ uri: 'tide-48.m3u8' }, { uri: 'tide-96.m3u8' }] }
		});
		const live = readHls(await ask('tide-48.m3u8').text());
		if (!live.ok || live.value.kind !== 'segments') throw new Error('no segments');
		expect(live.value.segments).toHaveLength(5);
		expect(live.value.firstNumber + 4).toBe(Math.floor(Date.parse('2026-11-26T12:00:01Z') / 2000));
		// A transport stream: each packet of 188 bytes begins with 0x47.
		const segment = await bytes(ask(live.value.segments[0]!.uri));
		expect(segment.length % 188).toBe(0);
		expect(segment.filter((_, n) => n % 188 === 0).every((byte) => byte === 0x47)).toBe(true);
	});
});
