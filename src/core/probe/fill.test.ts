import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { judges } from '../judges';
import { assess } from '../engines/assess';
import { contextFor } from '../engines/context';
import { cardInLine } from '../formats/alsa/cardLine';
import { catalogue } from '../parts/catalogue';
import { emptyPlan, type Plan } from '../plan/plan';
import { emptyWorkshop } from '../plan/workshop';
import { noFacts, type ProbeFacts } from '../parts/probeFacts';
import { fillingsOf, fillLan, outsideOf } from './fill';

const facts: ProbeFacts = {
	...noFacts(),
	memoryMb: 3792,
	disks: [{ name: 'mmcblk0', sizeBytes: 31_914_983_424, type: 'disk', mountPoints: [], removable: true }],
	addresses: [
		{ name: 'eth0', address: '192.168.7.23', up: true, prefixLength: 24 },
		{ name: 'eth0', address: 'fe80::1', up: true, prefixLength: 64 }
	],
	soundDevices: [
		{
			cardId: 'Headphones',
			cardName: 'bcm Headphones',
			deviceNumber: 0,
			deviceName: '',
			usbSpeed: null,
			playback: null,
			mixers: [],
			doors: []
		},
		{
			cardId: 'Studio',
			cardName: 'Studio',
			deviceNumber: 0,
			deviceName: 'USB Audio',
			usbSpeed: 'high',
			playback: { ratesHz: [44_100, 48_000, 96_000], formats: ['S24_3LE'], channels: [2] },
			mixers: [{ name: 'Master', lowestDb: -60, nowDb: 0 }],
			doors: ['hw']
		}
	]
};

describe('what a report says', () => {
	it('fills board, memory card, output, its name and control at one press, and nothing twice', () => {
		const plan = emptyPlan('Hall', 'hall', 'music');
		const wanting = { ...plan, sound: { ...plan.sound, volumeAt: 'converter' as const } };
		const fillings = fillingsOf(wanting, facts, catalogue);
		const filled = fillings.reduce<Plan>((now, filling) => filling.apply(now), wanting);
		expect(filled.parts).toMatchObject({ board: 'board-full-4', card: 'card-32', converter: 'conv-usb-96' });
		expect(filled.sound).toMatchObject({ cardId: 'Studio', deviceNumber: 0, mixerName: 'Master' });
		expect(fillings).toHaveLength(5);
		expect(fillingsOf(filled, facts, catalogue)).toEqual([]);
	});
	it('leaves a board and an output that fit as they are', () => {
		const plan = emptyPlan('Hall', 'hall', 'music');
		const chosen = { ...plan, parts: { ...plan.parts, board: 'board-media-2', converter: 'conv-usb-96' } };
		const whats = fillingsOf(chosen, { ...facts, memoryMb: 1950 }, catalogue).map(({ what }) => what);
		expect(whats.join()).not.toMatch(/Board|Output/);
		expect(fillingsOf(plan, noFacts(), catalogue)).toEqual([]);
	});
	it('gives a venue its range, and says when the firewall knows another', () => {
		const { venue } = emptyWorkshop('Europe/Oslo');
		expect(fillLan(venue, facts)).toEqual({ cidr: '192.168.7.0/24', gateway: '192.168.7.1', poolFrom: '', poolTo: '' });
		const lan = { cidr: '192.168.0.0/16', gateway: '192.168.0.1', poolFrom: '', poolTo: '' };
		expect(fillLan({ ...venue, lan }, facts)).toBeNull();
		expect(outsideOf(facts, ['192.168.40.0/24'])).toEqual(['192.168.7.23']);
		const lounge = demoWorkshop.endpoints[0]!;
		const seen = { ...demoWorkshop, endpoints: [{ ...lounge, probe: facts }] };
		const found = assess(judges, lounge.plan, contextFor(chain, seen, lounge.id)).findings.find(
			({ id }) => id === 'network.seen-outside'
		)!;
		expect(found.title).toContain('192.168.7.23');
		const mended = found.fixes[0]!.apply(lounge.plan);
		expect(
			assess(judges, mended, contextFor(chain, seen, lounge.id)).findings.some(
				({ id }) => id === 'network.seen-outside'
			)
		).toBe(false);
	});
});

it.each([
	['card 1: Field24 [Field 24], device 0: USB Audio [USB Audio]', { cardId: 'Field24', deviceNumber: 0 }],
	['carte 2: Opto [Opto], périphérique 3: PCM [PCM]', { cardId: 'Opto', deviceNumber: 3 }],
	[' 1 [Field24        ]: USB-Audio - Field 24', { cardId: 'Field24', deviceNumber: null }],
	['hw:CARD=Field24,DEV=1', { cardId: 'Field24', deviceNumber: 1 }],
	['plughw:Opto', { cardId: 'Opto', deviceNumber: null }],
	['Field24', null],
	['a line of something else', null],
	['', null]
])('the card in %j is %j', (line, card) => expect(cardInLine(line)).toEqual(card));
