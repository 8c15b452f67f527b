import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { alsaString, readAlsaConf } from './alsa/conf';
import { readDeviceName, writeDeviceName } from './alsa/deviceName';
import { keyfileBytes, keyfileText, readKeyfile } from './keyfile/keyfile';
import { derivePsk } from './keyfile/psk';
import { mpvLine, readMpvConf } from './mpv/conf';
import { readUserData } from './seed/userData';
import { yamlText } from './seed/yamlText';
import { readFlac } from './wav/flac';
import { measureWav, readWav, writeTone } from './wav/wav';

const line = fc.string({ unit: 'grapheme', maxLength: 30 }).filter((text) => !/[\u0000-\u001f\u007f]/.test(text));

describe('each format gives a person\u2019s line back exactly', () => {
	it('mpv.conf', () => {
		fc.assert(
			fc.property(line, (text) => {
				const written = mpvLine('force-media-title', text);
				expect(written.ok && readMpvConf(`a=1\n${written.value}\n`)[1]).toEqual({
					name: 'force-media-title',
					value: text
				});
			})
		);
		expect(mpvLine('title', 'a\nb')).toMatchObject({ ok: false, faults: [{ code: 'value-newline' }] });
	});
	it('asound.conf', () =>
		fc.assert(
			fc.property(
				line,
				(text) =>
					void expect(readAlsaConf(`pcm.x { type plug slave.pcm ${alsaString(text)} }`)).toEqual({
						ok: true,
						value: { pcm: { x: { type: 'plug', slave: { pcm: text } } } }
					})
			)
		));
	it('YAML, by an independent reader', () =>
		fc.assert(fc.property(line, (text) => void expect(parse(`a: ${yamlText(text)}`)).toEqual({ a: text }))));
	it('keyfiles, as text and as bytes', () => {
		fc.assert(
			fc.property(
				line.filter((text) => !text.endsWith(' ') && !/^(\d{1,3};)+$/.test(text)),
				(text) => void expect(readKeyfile(`[wifi]\nid=${keyfileText(text)}`).wifi!.id).toBe(text)
			)
		);
		fc.assert(
			fc.property(
				line.filter((text) => text !== ''),
				(text) => void expect(readKeyfile(`[wifi]\nssid=${keyfileBytes(text)}`).wifi!.ssid).toBe(text)
			)
		);
	});
});

it('reads overrides, dotted names and comments of asound.conf, and refuses an open block', () => {
	expect(readAlsaConf("pcm.!default { # c\n type hw\n card 'My Card' }\nctl.default.card 3")).toEqual({
		ok: true,
		value: { pcm: { default: { type: 'hw', card: 'My Card' } }, ctl: { default: { card: '3' } } }
	});
	expect(readAlsaConf('pcm.a { type hw')).toMatchObject({ ok: false, faults: [{ code: 'alsa-syntax' }] });
});

it('reads device names by named and by positional arguments', () => {
	expect(readDeviceName(writeDeviceName('hw', 'Field24', 1))).toEqual({
		plugin: 'hw',
		cardId: 'Field24',
		deviceNumber: 1
	});
	expect(readDeviceName('hw:1,2')).toEqual({ plugin: 'hw', cardId: '1', deviceNumber: 2 });
	expect(readDeviceName('yphos_shared')).toEqual({ plugin: 'yphos_shared', cardId: null, deviceNumber: 0 });
});

// IEEE 802.11-2020, annex J.4.2, test case 1.
it('derives the standard\u2019s own radio key, and refuses pass phrases that no radio takes', () => {
	expect(derivePsk('IEEE', 'password')).toEqual({
		ok: true,
		value: 'f42c6fc52df0ebef9ebb4b90b38a5f902e83fe1b135a70e23aed762e9710a12e'
	});
	expect(derivePsk('IEEE', 'short')).toMatchObject({ ok: false, faults: [{ code: 'psk-length' }] });
	expect(derivePsk('', 'password')).toMatchObject({ ok: false, faults: [{ code: 'ssid-length' }] });
});

it('reads the time zone of a seed, and nothing that is none', () => {
	const zone = (text: string) => {
		const read = readUserData(text);
		return read.ok ? [read.value.timeZone, read.value.unknown] : read.faults[0]!.code;
	};
	expect(zone('#cloud-config\ntimezone: "Atlantic/Faroe"\n')).toEqual(['Atlantic/Faroe', []]);
	expect(zone('#cloud-config\ntimezone: Middle/Earth')).toEqual([null, ['timezone Middle/Earth']]);
	expect([zone('timezone: UTC'), zone('#cloud-config\na: [')]).toEqual(['seed-kind', 'seed-yaml']);
});

describe('WAV', () => {
	const tone = (peakDbfs: number, channels: number) =>
		writeTone({ pitchHz: 440, peakDbfs, sampleRateHz: 44_100, bitDepth: 16, channels, durationMs: 500 });
	it('measures the level and pitch of the tone that was written: a sine has its RMS 3.01 dB below its peak', () => {
		fc.assert(
			fc.property(fc.integer({ min: -40, max: 0 }), fc.constantFrom(1, 2), (peakDbfs, channels) => {
				const bytes = tone(peakDbfs, channels);
				const facts = readWav(bytes);
				if (!facts.ok) throw new Error('unreadable');
				const heard = measureWav(bytes, facts.value);
				expect(heard.rmsDbfs).toBeCloseTo(peakDbfs - 3.01, 1);
				expect(heard.pitchHz).toBeCloseTo(440, 1);
				expect(facts.value).toMatchObject({ sampleRateHz: 44_100, bitDepth: 16, channels, durationMs: 500 });
			}),
			{ numRuns: 20 }
		);
	});
	it('never throws on cut or broken files', () => {
		const bytes = tone(-6, 2);
		fc.assert(
			fc.property(
				fc.nat(200),
				fc.nat(60),
				fc.nat(255),
				(cut, at, value) => void readWav(bytes.slice(0, cut).fill(value, at, at + 1))
			)
		);
		expect(readWav(bytes.slice(0, 30))).toMatchObject({ ok: false, faults: [{ code: 'wav-cut' }] });
		expect(readFlac(bytes)).toMatchObject({ ok: false, faults: [{ code: 'flac-none' }] });
	});
	it('reads a FLAC file\u2019s first block', () => {
		// 44.1 kHz, 2 channels, 16 bit, 44100 frames, laid out by RFC 9639, 8.2.
		const block = [
			0x66, 0x4c, 0x61, 0x43, 0x80, 0, 0, 34, 16, 0, 16, 0, 0, 0, 0, 0, 0, 0, 0x0a, 0xc4, 0x42, 0xf0, 0, 0, 0xac, 0x44
		];
		expect(readFlac(Uint8Array.from(block))).toEqual({
			ok: true,
			value: { sampleRateHz: 44_100, channels: 2, bitDepth: 16, durationMs: 1000 }
		});
	});
});
