import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readProbe } from '.';

/** What probe.sh printed on a real Debian start with an emulated USB converter. */
const report = readFileSync(resolve(import.meta.dirname, 'fixtures/emulated.txt'), 'utf8');
const field24 = {
	cardId: 'Field24',
	deviceNumber: 0,
	usbSpeed: 'full',
	playback: { ratesHz: [48_000], formats: ['S16_LE'], channels: [2] }
};
const facts = (text: string) => {
	const read = readProbe(text);
	if (!read.ok) throw new Error(read.faults[0]!.message);
	return read.value.facts;
};

describe('a whole report', () => {
	it('gives devices by lasting name, with abilities, doors and volume', () => {
		const read = facts(report);
		expect(read.soundDevices).toHaveLength(1);
		expect(read.soundDevices[0]).toMatchObject({
			...field24,
			mixers: [{ name: 'Audio Output Volume Control', nowDb: -0.5 }]
		});
		expect(read.soundDevices[0]!.doors).toContain('iec958');
		expect(read).toMatchObject({
			memoryMb: 1967,
			takenUtc: '2026-11-24T04:02:02Z',
			connectors: [{ name: 'HDMI-A-1', connected: true }]
		});
		expect(read.connectors[0]!.edidHex).toHaveLength(512);
		expect(read.disks.map((d) => [d.name, d.mountPoints])).toEqual([
			['vda', ['/']],
			['vdb', ['/boot/firmware']]
		]);
		expect(read.addresses.length).toBeGreaterThan(0);
	});
	it('leaves nothing of it unread', () => {
		const read = readProbe(report);
		expect(read.ok && read.value.notUnderstood).toEqual([]);
	});
	it('says the same with Windows line ends, colours, and its sections in any order', () => {
		const parts = report.split(/^(?==== )/m);
		fc.assert(
			fc.property(fc.shuffledSubarray(parts, { minLength: parts.length }), (shuffled) => {
				const dressed = shuffled
					.join('')
					.replace(/\n/g, '\r\n')
					.replace(/card 0:/g, '\u001b[32mcard 0:\u001b[0m');
				expect(facts(dressed).soundDevices).toMatchObject([field24]);
			}),
			{ numRuns: 25 }
		);
	});
});

describe('one listing alone', () => {
	const section = (start: string): string => {
		const at = report.indexOf(`=== ${start}`);
		return report.slice(report.indexOf('\n', at) + 1, report.indexOf('\n=== ', at));
	};
	it.each([
		['aplay -l', 'list of playback devices'],
		['cat /proc/asound/cards', 'list of sound cards'],
		['lsblk', 'disks'],
		['ip -j addr', 'addresses'],
		['cat /proc/meminfo', 'memory']
	])('%s is known without its heading', (heading, word) => {
		const read = readProbe(section(heading));
		expect(read.ok && read.value.understood).toContain(word);
	});
	it('after a prompt, with what was typed', () => {
		const pasted = `[me@board ~]$ cat /proc/asound/cards\n${section('cat /proc/asound/cards')}me@board:~ $ sudo cat /proc/asound/card0/stream0\n${section('cat /proc/asound/card0/stream0')}me@board:~ $ `;
		expect(facts(pasted).soundDevices).toMatchObject([field24]);
	});
	it('joins a bare stream listing to the card at the same socket', () => {
		expect(
			facts(section('cat /proc/asound/card0/stream0') + '\n' + section('cat /proc/asound/cards')).soundDevices
		).toMatchObject([field24]);
	});
});

it('reads ranges of rates, several settings, and a display\u2019s sound', () => {
	const text = `=== cat /proc/asound/cards ===
 1 [Wide           ]: USB-Audio - Wide converter
                      Maker Wide at usb-1.2, high speed
=== cat /proc/asound/card1/stream0 ===
Maker Wide at usb-1.2, high speed : USB Audio

Playback:
  Status: Stop
  Interface 1
    Altset 1
    Format: S24_3LE
    Channels: 2
    Rates: 44100 - 96000 (continuous)
  Interface 1
    Altset 2
    Format: S32_LE
    Channels: 8
    Rates: 44100, 192000

Capture:
  Interface 2
    Altset 1
    Format: S16_LE
    Channels: 1
    Rates: 8000
=== cat /proc/asound/card0/eld#0.0 ===
monitor_present\t\t1
monitor_name\t\tLantern
sad0_coding_type\t[0x1] LPCM
=== cat /sys/devices/platform/soc/soc:firmware/get_throttled ===
50005`;
	const read = facts(text);
	expect(read.soundDevices[0]!.playback).toEqual({
		ratesHz: [44_100, 48_000, 88_200, 96_000, 192_000],
		formats: ['S24_3LE', 'S32_LE'],
		channels: [2, 8]
	});
	expect(read.displaySound).toEqual([{ cardIndex: 0, monitor: 'Lantern', present: true, formats: ['LPCM'] }]);
	expect(read.supplyAlarm).toBe(true);
	expect(read.throttled).toBe(true);
	expect(facts(`${text.slice(0, -5)}10001`)).toMatchObject({ supplyAlarm: true, throttled: false });
	const usb =
		'Bus 001 Device 001: ID 1d6b:0002 Linux Foundation 2.0 root hub\nBus 001 Device 002: ID 0d8c:0014 Field converter';
	expect(facts(`=== lsusb ===\n${usb}`).usbDevices).toEqual(['Field converter']);
});

it('says what it did not understand, and refuses what is no report at all', () => {
	const read = readProbe(
		'=== aplay -l ===\naplay: device_list:274: no soundcards found...\n=== uname -m ===\naarch64\n=== cat /proc/meminfo ===\nMemTotal: 1000000 kB'
	);
	expect(read.ok && read.value.notUnderstood).toEqual(['aplay: device_list:274: no soundcards found...']);
	expect(readProbe('Dear all, the tide table is attached.')).toMatchObject({
		ok: false,
		faults: [{ code: 'probe-nothing' }]
	});
	fc.assert(fc.property(fc.string({ maxLength: 300 }), (text) => void readProbe(text)));
});
