import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { writers } from '../../writers';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { Machine } from '../../engines/machine';
import { Disk } from '../../engines/machine/disk';
import type { BenchSoundCard } from './bench';
import rehearseSound from './rehearse';
import { earTrack } from './track';

describe('programs that want one converter', () => {
	const card: BenchSoundCard = {
		cardId: 'Plain48',
		deviceNumber: 0,
		name: 'A converter',
		readyMs: 100,
		playback: { ratesHz: [48_000], formats: ['S16_LE'], channels: [2] },
		ways: ['hw'],
		fullScaleVrms: 1,
		volume: null,
		overlay: null,
		assumed: false
	} as BenchSoundCard;
	const MIXED =
		'pcm.m {\n\ttype dmix\n\tipc_key 1\n\tslave {\n\t\tpcm "hw:CARD=Plain48,DEV=0"\n\t\trate 48000\n\t}\n}\npcm.!default {\n\ttype plug\n\tslave.pcm "m"\n}\n';
	const DIRECT = 'pcm.!default {\n\ttype plug\n\tslave.pcm "hw:CARD=Plain48,DEV=0"\n}\n';
	const wanted = (title: string) => ({
		title,
		id: title,
		codec: 'pcm',
		lossless: true,
		sampleRateHz: 44_100,
		bitDepth: 16 as const,
		channels: 2,
		durationMs: null,
		level: null,
		gainDb: 0,
		forcedRateHz: null
	});
	function machineWith(conf: string): Machine {
		const disk = new Disk();
		disk.put('/etc/asound.conf', { text: conf, bytes: null });
		const bench = benchFor(
			writers,
			demoWorkshop.endpoints[0]!.plan,
			contextFor(chain, demoWorkshop, demoWorkshop.endpoints[0]!.id)
		);
		const machine = new Machine({
			card: new Map(),
			disk,
			bench: { ...bench, soundCards: [card], amplifier: null },
			startUtcMs: 0,
			timeZone: 'UTC',
			tracks: [earTrack]
		});
		rehearseSound(machine);
		machine.powered = true;
		machine.emit('userspace');
		machine.clock.runUntil(1000);
		return machine;
	}
	it('one holds it where it is opened directly, and the next is told whose it is', () => {
		const { offers } = machineWith(DIRECT);
		const first = offers.openSound!('default', wanted('The list'), () => {});
		expect(typeof first).toBe('object');
		expect(offers.openSound!('default', wanted('A phone'), () => {})).toBe('The list holds the sound card Plain48');
		(first as { close(): void }).close();
		expect(typeof offers.openSound!('default', wanted('A phone'), () => {})).toBe('object');
	});
	it('both are heard through the mixing device, each goes by itself, and all lose a converter that is unplugged', () => {
		const machine = machineWith(MIXED);
		const lost: string[] = [];
		const open = (title: string) =>
			machine.offers.openSound!('default', wanted(title), () => lost.push(title)) as { close(): void };
		const ear = () => machine.tracks.get('ear')!;
		open('The list');
		const phone = open('A phone');
		expect(ear().marks.at(-1)?.data).toMatchObject({ title: 'The list + A phone' });
		phone.close();
		open('A phone');
		// Who comes directly while others mix is kept out, and the other way round.
		expect(machine.offers.openSound!('hw:CARD=Plain48,DEV=0', wanted('A third'), () => {})).toBe(
			'A phone holds the sound card Plain48'
		);
		machine.emit('fault', { name: 'converter-unplugged', on: true });
		expect(lost).toEqual(['The list', 'A phone']);
	});
});
