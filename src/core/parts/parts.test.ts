import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { noFacts } from './probeFacts';
import { catalogue } from './catalogue';
import { describePart, fieldWords, tellingOf } from './describe';
import { partsJsonSchema, readPart, readPartsFile, writePartsFile } from './file';
import { measuredBoard } from './measured';
import { meets } from './plugs';
import { playLoad } from './playLoad';
import { KINDS, partSchema, type Part, type PartKind, type PartOf } from './schema';
import { blankOf, blankPart, measuredWhereChanged, shapeOf, type Shape } from './shape';

const board = (id: string) => catalogue.find((part) => part.id === id) as PartOf<'board'>;

describe('the catalogue', () => {
	it('keeps its own schema, names no id and no name twice, and says where each figure comes from', () => {
		for (const part of catalogue) {
			expect(partSchema.safeParse(part).success, part.id).toBe(true);
			for (const { source, text, label } of describePart(part)) {
				expect(source.length, `${part.id} ${label}`).toBeGreaterThan(8);
				expect(text).not.toContain('[object');
			}
			expect(tellingOf(part), part.id).not.toBe('');
		}
		expect(new Set(catalogue.map(({ id }) => id)).size).toBe(catalogue.length);
		expect(new Set(catalogue.map(({ name }) => name)).size).toBe(catalogue.length);
	});
	it('has something of every kind, and of boards at least ten', () => {
		const kinds = new Set(catalogue.map(({ kind }) => kind));
		expect(Object.keys(KINDS).filter((kind) => !kinds.has(kind as never))).toEqual([]);
		expect(catalogue.filter(({ kind }) => kind === 'board').length).toBeGreaterThanOrEqual(10);
		const systems = new Set(catalogue.flatMap((part) => (part.kind === 'tuner' ? part.systems : [])));
		expect([...systems].sort()).toEqual(['ATSC', 'C', 'S', 'S2', 'T', 'T2']);
	});
	it('contradicts itself nowhere: pins carry what a part draws, kits are cheaper than what is in them, heatsinks give off what their surface can', () => {
		const price = new Map(catalogue.map((part) => [part.id, part.price ?? 0]));
		const wrong: string[] = [];
		for (const part of catalogue) {
			const { header, draw } = part;
			if (header && draw?.via === 'header') {
				const pinsW = (5 * header.milliamperes5V + 3.3 * header.milliamperes3V3) / 1000;
				if (Math.abs(pinsW - draw.peakW) > Math.max(0.03, 0.16 * draw.peakW) && !('wattHours' in part))
					wrong.push(`${part.id}: ${draw.peakW} W, but ${pinsW.toFixed(2)} W through its pins`);
			}
			if (part.kind === 'kit') {
				const apart = part.contains.reduce((sum, item) => sum + item.count * price.get(item.part)!, 0);
				if (part.price! >= apart) wrong.push(`${part.id}: ${part.price} for ${apart} worth of parts`);
			}
			// Still air and radiation take 8 to 16 W from a square metre for each kelvin. Source: VDI Heat Atlas, F2 and K1.
			if (part.kind === 'cooler') {
				const wattsPerM2K = 1 / (part.kPerW * (part.areaCm2 / 1e4));
				if (wattsPerM2K < 8 || wattsPerM2K > 16) wrong.push(`${part.id}: ${wattsPerM2K.toFixed(1)} W/(m² K)`);
			}
			if (part.kind === 'converter' && part.joint === 'header' && !part.header?.i2s)
				wrong.push(`${part.id}: on the header without its sound lines`);
			if (
				draw?.via === 'usb' &&
				!part.sockets.some(({ way, plug }) => way === 'in' && plug.startsWith('usb')) &&
				part.kind !== 'kit'
			)
				wrong.push(`${part.id}: fed by USB without a plug for it`);
			if (part.kind === 'board' && part.wired !== part.sockets.some(({ plug }) => plug === 'network'))
				wrong.push(`${part.id}: a network socket, or none`);
			if (part.kind === 'speakers' && part.leastOhm !== null && part.leastOhm > part.ohm)
				wrong.push(`${part.id}: impedance`);
		}
		expect(wrong).toEqual([]);
	});
	it('has kits whose contents are in it, and for every board a supply with a way to it', () => {
		const ids = new Set(catalogue.map(({ id }) => id));
		for (const part of catalogue)
			if (part.kind === 'kit') for (const item of part.contains) expect(ids, part.id).toContain(item.part);
		const supplies = catalogue.flatMap((part) => (part.kind === 'supply' ? part.sockets : []));
		for (const part of catalogue) {
			if (part.kind !== 'board') continue;
			const into = part.sockets.find(({ way, carries }) => way === 'in' && carries.includes('power'))!;
			expect(
				supplies.some((out) => out.way === 'out' && meets(out, into)),
				part.id
			).toBe(true);
		}
	});
	it('has words and a unit for every single figure', () => {
		const single = catalogue.flatMap((part) =>
			Object.entries(part).flatMap(([field, value]) =>
				typeof value === 'number' || typeof value === 'boolean' ? [field] : []
			)
		);
		expect([...new Set(single)].filter((field) => field !== 'price' && fieldWords(field).label === field)).toEqual([]);
	});
});

describe('a file of parts', () => {
	it('comes back as it was written', () =>
		expect(readPartsFile(writePartsFile(catalogue))).toEqual({ ok: true, value: { parts: catalogue, refused: [] } }));
	it.each([
		['missing', { memoryMb: undefined }, /^memoryMb: /],
		['absurd', { memoryMb: -4 }, /^memoryMb: /],
		['of the wrong kind', { idleW: 'much' }, /^idleW: /],
		['at odds with another', { idleW: 9, peakW: 2 }, /must rise/]
	])('refuses by name a part with a figure that is %s, and takes the others', (_, wrong, why) => {
		const read = readPartsFile(JSON.stringify([{ ...board('board-full-4'), ...wrong }, board('board-full-1')]));
		if (!read.ok) throw new Error('not read');
		expect(read.value.parts.map(({ id }) => id)).toEqual(['board-full-1']);
		expect(read.value.refused).toEqual([
			{ name: 'Full-size board, 4 GB, two micro HDMI ports', why: expect.stringMatching(why) as string }
		]);
	});
	it('is refused when it is something else', () => {
		expect(readPartsFile('{')).toMatchObject({ ok: false, faults: [{ code: 'not-json' }] });
		expect(readPartsFile('{"yphos":"plan"}')).toMatchObject({ ok: false, faults: [{ code: 'not-parts' }] });
	});
	it('has its schema published as it is', () => {
		const published = readFileSync(resolve(import.meta.dirname, '../../../docs/parts.schema.json'), 'utf8');
		expect(JSON.parse(published), 'make it anew: npx yphos schema > docs/parts.schema.json').toEqual(
			JSON.parse(JSON.stringify(partsJsonSchema()))
		);
	});
});

describe('a form for a part', () => {
	const fits = (shape: Shape, value: unknown): boolean => {
		switch (shape.is) {
			case 'maybe':
				return value === null || fits(shape.of, value);
			case 'list':
				return Array.isArray(value) && value.every((one) => fits(shape.of, one));
			case 'row':
				return Array.isArray(value) && shape.items.every((item, n) => fits(item, value[n]));
			case 'group':
				return shape.fields.every(([name, field]) => fits(field, (value as Record<string, unknown>)[name]));
			case 'choice':
				return shape.options.includes(value as string);
			default:
				return typeof value === { text: 'string', number: 'number', 'yes-no': 'boolean' }[shape.is];
		}
	};
	it('has a field for all that is known of any part, nested or not, each with its words', () => {
		for (const part of catalogue) {
			const shape = shapeOf(part.kind);
			expect(fits(shape, part), part.id).toBe(true);
			const names = shape.fields.map(([name]) => name);
			expect(
				Object.keys(part).filter((key) => !names.includes(key) && !['id', 'kind', 'figures'].includes(key))
			).toEqual([]);
		}
		const bare: string[] = [];
		const look = (shape: Shape): void => {
			if (shape.is === 'group')
				for (const [name, field] of shape.fields) {
					if (fieldWords(name).label === name && !['name', 'source', 'sure', 'price'].includes(name)) bare.push(name);
					look(field);
				}
			else if (shape.is === 'maybe' || shape.is === 'list') look(shape.of);
			else if (shape.is === 'row') shape.items.forEach(look);
		};
		for (const kind of Object.keys(KINDS) as PartKind[]) look(shapeOf(kind));
		expect([...new Set(bare)]).toEqual([]);
	});
	it('begins with nothing, says what is missing, and takes what is filled in', () => {
		for (const kind of Object.keys(KINDS) as PartKind[]) {
			expect(fits(shapeOf(kind), blankOf(shapeOf(kind))), kind).toBe(true);
			expect(readPart(blankPart(kind, 'own-1')), kind).toMatchObject({
				ok: false,
				faults: [{ message: expect.stringMatching(/name/) }]
			});
		}
		const fan = { ...blankPart('fan', 'own-1'), name: 'Mine', airFactor: 2, volts: 5 };
		expect(readPart(fan)).toMatchObject({ ok: true, value: { name: 'Mine', control: 'always', sure: 'typical' } });
	});
	it('of a copy counts as measured what was changed, and nothing else', () => {
		const from = board('board-full-4') as Part;
		const copy = measuredWhereChanged({ ...from, name: 'Mine', idleW: 3.1 } as Part, from);
		expect([copy.sure, Object.keys(copy.figures)]).toEqual([from.sure, [...Object.keys(from.figures), 'idleW']]);
		expect(describePart(copy).find(({ field }) => field === 'idleW')).toMatchObject({ sure: 'measured' });
	});
});

describe('what a board said of itself', () => {
	const facts = { ...noFacts(), memoryMb: 3792, linkMbps: [{ name: 'eth0', mbps: 100 }] };
	it('takes the place of what is typical, and says so', () => {
		const measured = measuredBoard(board('board-full-4'), facts);
		expect(measured).toMatchObject({ memoryMb: 3792, wiredMbps: 100 });
		expect(describePart(measured).find(({ field }) => field === 'memoryMb')).toMatchObject({ sure: 'measured' });
	});
	it('changes nothing when it is another board', () =>
		expect(measuredBoard(board('board-full-1'), facts)).toBe(board('board-full-1')));
});

it('a film by a circuit asks little of the processors, by program in proportion to its pixels', () => {
	const film = { codec: 'h264', widthPx: 1920, heightPx: 1080, framesPerSec: 30, bitDepth: 8 } as const;
	expect(playLoad(board('board-full-4'), film)).toMatchObject({ by: 'circuit' });
	const by = (framesPerSec: number) => playLoad({ ...board('board-full-4'), decoders: [] }, { ...film, framesPerSec });
	expect(by(60).share - by(30).share).toBeCloseTo(by(30).share - by(0).share, 9);
	expect(playLoad(board('board-full-4'), null).share).toBeLessThan(0.1);
});

it('nothing in the drawer gives more than it takes', () => {
	for (const part of catalogue) {
		// What mains feed has a store of its own for the loud moments, and is rated for one side after the other.
		if (part.kind === 'amplifier' && part.draw?.via === 'usb')
			expect(2 * part.ratedW, part.id).toBeLessThanOrEqual(0.9 * part.draw.peakW);
		if (part.kind === 'supply' && part.name.includes('power over Ethernet'))
			expect(part.volts * part.amperes, part.id).toBeLessThanOrEqual(0.88 * 12.95);
	}
});
