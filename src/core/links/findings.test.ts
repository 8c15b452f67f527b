import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { judges } from '../judges';
import { assess } from '../engines/assess';
import { benchFor } from '../engines/benchFor';
import { curesOf } from '../engines/cure';
import { derive } from '../engines/derive';
import { contextFor } from '../engines/context';
import type { Finding, Level } from '../link/finding';
import type { Surroundings } from '../link/context';
import { capitalArcmin } from '../standards/legibility';
import { writers } from '../writers';
import { assessNetwork } from './network/findings';
import { nameCard } from '../probe/nameCard';
import { newRule, type Moment } from '../onAir/when';
import type { Part, PartOf } from '../parts/schema';
import { planSchema, type Plan } from '../plan/plan';
import { noFacts, type ProbeFacts, type SoundDevice } from '../parts/probeFacts';

const bench = demoWorkshop.endpoints.find(({ id }) => id === 'test-bench')!;
const calm = contextFor(chain, demoWorkshop, bench.id);
const probed = (facts: Partial<ProbeFacts>): Surroundings => ({ ...calm, probe: { ...noFacts(), ...facts } });
const all = (plan: Plan, context: Surroundings): readonly Finding[] => assess(judges, plan, context).findings;

type Parts = { [L in keyof Plan]?: Partial<Plan[L]> };
/** Settings put over the plan of the test bench, which is at peace. */
const having = (change: Parts): Plan =>
	planSchema.parse(
		Object.fromEntries(
			Object.entries(bench.plan).map(([link, settings]) => [
				link,
				{ ...(settings as object), ...change[link as keyof Plan] }
			])
		)
	);
const also = (...parts: string[]) => parts.map((part) => ({ part, count: 1 }));
const item = (location: string, id = `i${location.replace(/[^A-Za-z0-9]+/g, '-')}`) => ({
	id,
	location,
	title: '',
	durationSec: null,
	extra: [],
	part: null
});
const STREAM = 'http://radio.skerrin.example:8000/harbour';
const DEVICE: SoundDevice = {
	cardId: 'Plain48',
	cardName: 'Plain48',
	deviceNumber: 0,
	deviceName: '',
	usbSpeed: null,
	playback: { ratesHz: [48_000], formats: ['S16_LE'], channels: [2] },
	mixers: [],
	doors: ['hw']
};
const RADIO = { bandGhz: 5, widthMhz: 80, streams: 1, signalDbm: -60, othersPercent: 20 } as const;
const shape = { codec: 'pcm', lossless: true, sampleRateHz: 48_000, bitDepth: 16, channels: 2 };
/** The board of the bench, but for these figures. */
function withBoard(figures: Partial<PartOf<'board'>>): Surroundings {
	const changed = <P extends Part>(part: P): P => (part.id === bench.plan.parts.board ? { ...part, ...figures } : part);
	return {
		...calm,
		part: (kind, id) => {
			const part = calm.part(kind, id);
			return part && changed(part);
		},
		find: (id) => {
			const part = calm.find(id);
			return part && changed(part);
		},
		drawer: calm.drawer.map(changed)
	};
}
/** As if somebody had dropped these files. */
const withMedia = (facts: Partial<NonNullable<ReturnType<Surroundings['media']>>>): Surroundings => ({
	...calm,
	media: (location) =>
		location === 'own.wav'
			? {
					location,
					...shape,
					bitRateBps: null,
					durationMs: 5000,
					sizeBytes: 1e6,
					sha256: '',
					kept: 'person',
					from: 'file',
					...facts
				}
			: calm.media(location)
});

/** Another endpoint of the workshop that receives. */
function beside(receiving: NonNullable<Surroundings['others'][number]['receiving']>): Surroundings {
	const [first, ...rest] = calm.others;
	return { ...calm, others: [{ ...first!, endpointName: 'Kitchen', receiving }, ...rest] };
}

const OPENS: Moment = { at: 'opens', time: '00:00', offsetMin: 0 };
const SUNSET: Moment = { at: 'sunset', time: '00:00', offsetMin: 0 };
interface Case {
	readonly id: string;
	readonly level: Level;
	readonly change?: Parts;
	readonly context?: Surroundings;
	/** None: no press of a button can end it. Later: what the board reported stands until it is asked anew. */
	readonly fixes?: 'none' | 'later';
}
const CASES: readonly Case[] = [
	{ id: 'card.unknown', level: 'note', change: { parts: { card: null } }, fixes: 'none' },
	{ id: 'heat.unknown', level: 'note', change: { parts: { board: null } }, fixes: 'none' },
	{ id: 'power.unknown', level: 'note', change: { parts: { supply: null } }, fixes: 'none' },
	{
		id: 'heat.probed',
		level: 'note',
		context: probed({ temperaturesC: [{ name: 'cpu', celsius: 51 }] }),
		fixes: 'none'
	},
	{ id: 'heat.slowed-seen', level: 'caution', context: probed({ throttled: true }), fixes: 'later' },
	{
		id: 'heat.readings-early',
		level: 'note',
		change: {
			heat: {
				useReadings: true,
				readings: [
					{ afterMin: 0.5, chipC: 26 },
					{ afterMin: 1, chipC: 29 }
				]
			}
		},
		fixes: 'none'
	},
	{ id: 'power.alarm-seen', level: 'caution', context: probed({ supplyAlarm: true }), fixes: 'later' },
	{ id: 'power.only-just', level: 'caution', change: { parts: { also: [{ part: 'hold-cap', count: 2 }] } } },
	{ id: 'power.thin-margin', level: 'caution', change: { parts: { also: [{ part: 'hold-cell', count: 2 }] } } },
	{
		id: 'power.surge',
		level: 'caution',
		change: { parts: { supply: 'supply-5-3-open', also: also('hold-cap') } },
		context: withBoard({ peakW: 3, surgeW: 4, brownOutV: 4.7, warnsV: null })
	},
	{
		id: 'network.no-five',
		level: 'stop',
		change: {
			parts: { board: 'board-small-512', supply: 'supply-5-2a5', also: [] },
			network: { way: 'radio', ssid: 'x', countryCode: 'FO', radio: RADIO }
		}
	},
	{
		id: 'network.radio-less',
		level: 'note',
		change: { network: { way: 'radio', ssid: 'x', countryCode: 'FO', radio: { ...RADIO, streams: 2 } } }
	},
	{
		id: 'network.updates-off',
		level: 'caution',
		change: { network: { updates: { nightly: true, at: '03:00' } }, power: { onHoursPerDay: 12 } }
	},
	{ id: 'sound.no-overlay', level: 'caution', change: { parts: { converter: 'conv-header-small' } }, fixes: 'none' },
	{
		id: 'power.start',
		level: 'caution',
		change: { parts: { supply: 'supply-5-3-open' } },
		context: withBoard({ peakW: 3, surgeW: 20, brownOutV: 4.6, warnsV: null })
	},
	{
		id: 'power.warns',
		level: 'caution',
		change: { parts: { supply: 'supply-5-3-open', lead: 'lead-c-c-2' } },
		context: withBoard({ warnsV: 4.8 })
	},
	{
		id: 'power.usb-port',
		level: 'stop',
		change: { parts: { also: also('drive-ssd-500') } },
		context: withBoard({ usbPortA: 0.4 })
	},
	{ id: 'parts.other-board', level: 'caution', context: probed({ memoryMb: 900 }) },
	{
		id: 'network.no-radio',
		level: 'stop',
		change: { network: { way: 'radio', ssid: 'Station', countryCode: 'GB' } },
		context: withBoard({ radio: false })
	},
	{ id: 'network.no-socket', level: 'stop', change: { parts: { board: 'board-small-512' } } },
	{
		id: 'network.no-ssid',
		level: 'stop',
		change: { network: { way: 'radio', countryCode: 'GB' } },
		fixes: 'none'
	},
	{ id: 'network.no-country', level: 'caution', change: { network: { way: 'radio', ssid: 'Station' } }, fixes: 'none' },
	{
		id: 'network.streams-without',
		level: 'stop',
		change: { network: { way: 'none' }, sources: { items: [item(STREAM)] } }
	},
	{ id: 'network.no-hotspot', level: 'stop', change: { network: { school: 'hotspot' } } },
	{
		id: 'network.updates-forgotten',
		level: 'caution',
		change: { card: { root: 'overlay', dailyMb: 1 }, network: { updates: { nightly: true, at: '03:30' } } }
	},
	{
		id: 'network.updates-wait',
		level: 'caution',
		change: { network: { guard: { limited: true, ranges: [], exposed: true } } }
	},
	{
		id: 'programme.no-list',
		level: 'stop',
		change: { sources: { used: false } }
	},
	{ id: 'programme.no-output', level: 'stop', change: { sound: { used: false } } },
	{ id: 'sources.unplayed', level: 'stop', change: { programme: { used: false } } },
	{
		id: 'programme.no-clock',
		level: 'stop',
		change: {
			network: { way: 'none' },
			programme: { quiet: [{ weekdays: [], from: '22:00', until: '07:00' }] }
		}
	},
	...(
		[
			['programme.rules-idle', 'caution', { startAtBoot: false, rules: [newRule('r', 'all', 'Day')] }],
			['programme.rule-list-r', 'stop', { rules: [newRule('r', 'gone', 'Day')] }],
			[
				'programme.rule-opening-r',
				'stop',
				{ rules: [{ ...newRule('r', 'all', 'Day'), from: OPENS }] },
				{ opening: [] }
			],
			['programme.rule-sun-r', 'stop', { rules: [{ ...newRule('r', 'all', 'Day'), until: SUNSET }] }, { place: null }],
			[
				'programme.rule-never-r',
				'caution',
				{
					rules: [
						{
							...newRule('r', 'all', 'Tour'),
							weekdays: ['Tue'],
							season: { from: '10-01', until: '03-31' },
							from: OPENS
						}
					]
				}
			],
			[
				'programme.rule-each-r',
				'note',
				{ rules: [{ ...newRule('r', 'all', 'Bell'), each: { everyMin: 5, forMin: 5 } }] }
			],
			[
				'programme.list-unused-l',
				'note',
				{
					lists: [{ id: 'l', title: 'Spare', items: ['s1'], wishes: [], valid: [] }],
					rules: [newRule('r', 'all', 'Day')]
				}
			],
			[
				'programme.list-empty-l',
				'stop',
				{ lists: [{ id: 'l', title: 'Empty', items: [], wishes: [], valid: [] }], rules: [newRule('r', 'l', 'Day')] }
			],
			[
				'programme.list-lost-l',
				'caution',
				{
					lists: [{ id: 'l', title: 'Old', items: ['s1', 'gone'], wishes: [], valid: [] }],
					rules: [newRule('r', 'l', 'Day')]
				}
			],
			[
				'programme.days-never-l-s1',
				'caution',
				{
					lists: [
						{
							id: 'l',
							title: 'Dated',
							items: ['s1', 's2'],
							wishes: [],
							valid: [{ item: 's1', from: '2027-05-01', until: '2027-04-01' }]
						}
					],
					rules: [newRule('r', 'l', 'Day')]
				}
			],
			[
				'programme.days-over-l',
				'caution',
				{
					lists: [
						{
							id: 'l',
							title: 'Dated',
							items: ['s1', 's2'],
							wishes: [],
							valid: [
								{ item: 's1', from: '', until: '2027-04-01' },
								{ item: 's2', from: '2027-03-01', until: '2027-06-01' }
							]
						}
					],
					rules: [newRule('r', 'l', 'Day')]
				}
			],
			[
				'programme.wish-l-s1-apart',
				'caution',
				{
					lists: [
						{
							id: 'l',
							title: 'Wished',
							items: ['s1', 's1'],
							wishes: [{ item: 's1', perHour: null, percent: null, apartFrom: ['s1'] }],
							valid: []
						}
					],
					rules: [newRule('r', 'l', 'Day')]
				}
			],
			[
				'programme.wishes-shuffled',
				'caution',
				{
					lists: [
						{
							id: 'l',
							title: 'Wished',
							items: ['s1', 's2'],
							wishes: [{ item: 's1', perHour: 1, percent: null, apartFrom: [] }],
							valid: []
						}
					],
					rules: [newRule('r', 'l', 'Day')],
					shuffle: true
				}
			]
		] as [string, Level, Parts['programme'], Partial<Surroundings['venue']>?][]
	).map(([id, level, programme, venue = {}]): Case => ({
		id,
		level,
		change: { programme },
		context: { ...calm, venue: { ...calm.venue, ...venue } }
	})),
	{
		id: 'programme.clock-by-network',
		level: 'note',
		change: { programme: { quiet: [{ weekdays: [], from: '22:00', until: '07:00' }] } },
		fixes: 'none'
	},
	{
		id: 'programme.empty-quiet-0',
		level: 'stop',
		change: { programme: { quiet: [{ weekdays: [], from: '22:00', until: '22:00' }] } }
	},
	{ id: 'sound.card-absent', level: 'stop', context: probed({ soundDevices: [{ ...DEVICE, cardId: 'Other' }] }) },
	{
		id: 'sound.no-card',
		level: 'stop',
		change: { sound: { cardId: '' } },
		context: probed({ soundDevices: [DEVICE] })
	},
	{
		id: 'sound.card-number',
		level: 'stop',
		change: { sound: { cardId: '1' } },
		context: probed({ soundDevices: [DEVICE] })
	},
	{
		id: 'sound.mixed-down',
		level: 'note',
		change: { sources: { items: [item('own.wav')] } },
		context: withMedia({ channels: 6 }),
		fixes: 'none'
	},
	{
		id: 'sound.narrowed',
		level: 'note',
		change: { sources: { items: [item('own.wav')] } },
		context: withMedia({ bitDepth: 24 }),
		fixes: 'none'
	},
	{ id: 'sources.empty', level: 'stop', change: { sources: { items: [] } }, fixes: 'none' },
	{ id: 'sources.unknown', level: 'note', change: { sources: { items: [item('never seen.wav')] } }, fixes: 'none' },
	{
		id: 'sources.doubles',
		level: 'note',
		change: { sources: { items: [item('Line-up tone 440.wav', 'a'), item('Line-up tone 440.wav', 'b')] } }
	},
	{
		id: 'sources.waits',
		level: 'note',
		change: { sources: { items: [item('Line-up tone 440.wav'), item(STREAM)], waitForNetwork: true } }
	},
	{
		id: 'sources.endless',
		level: 'caution',
		change: { sources: { items: [item(STREAM), item('Line-up tone 440.wav')] } }
	},
	{ id: 'sources.elsewhere', level: 'caution', change: { sources: { items: [item('/srv/a.wav')] } } }
];

/** The bench receives by all three ways, its pairing open; here what it lacks of trouble. */
const RECEIVING: readonly Case[] = [
	{
		id: 'receiving.no-way',
		level: 'stop',
		change: { receiving: { bluetooth: false, server: false, rtp: false } }
	},
	{ id: 'receiving.no-sound', level: 'stop', change: { sound: { used: false } } },
	{ id: 'receiving.no-network', level: 'stop', change: { network: { way: 'none' } } },
	{ id: 'receiving.not-shared', level: 'stop', change: { sound: { travel: 'follow' } } },
	{ id: 'receiving.sum-clips', level: 'note', change: { receiving: { meanwhile: 'mixes' } } },
	{ id: 'receiving.no-adapter', level: 'stop', context: withBoard({ bluetoothDbm: null }) },
	{ id: 'receiving.nobody-pairs', level: 'stop', change: { receiving: { pairing: 'once' } } },
	{ id: 'receiving.far', level: 'caution', change: { receiving: { farthestM: 20, walls: 2 } }, fixes: 'none' },
	{ id: 'receiving.far', level: 'stop', change: { receiving: { farthestM: 60, walls: 6 } }, fixes: 'none' },
	{
		id: 'receiving.one-band',
		level: 'caution',
		change: {
			network: { way: 'radio', ssid: 'x', countryCode: 'FO', radio: { ...RADIO, bandGhz: 2.4, widthMhz: 20 } }
		}
	},
	{
		id: 'receiving.same-name',
		level: 'caution',
		change: { receiving: { name: 'Radio' } },
		context: beside({ name: 'Radio', ways: ['bluetooth'], bufferMs: 300, quietToo: true })
	},
	{
		id: 'receiving.rooms-apart',
		level: 'note',
		change: { receiving: { bufferMs: 150 } },
		context: beside({ name: '', ways: ['rtp'], bufferMs: 500, quietToo: true }),
		fixes: 'later'
	},
	{
		id: 'receiving.quiet-broken',
		level: 'caution',
		change: {
			receiving: { quietToo: false },
			programme: { quiet: [{ weekdays: [], from: '22:00', until: '07:00' }] }
		}
	}
];
const EVERY = [...CASES, ...RECEIVING];

const plans = (one: Case) => ({ plan: having(one.change ?? {}), context: one.context ?? calm });

describe('each finding', () => {
	it.each(EVERY)('$id is there when it is so, at its level, and not on a quiet bench', (one) => {
		const { plan, context } = plans(one);
		expect(all(bench.plan, calm).map(({ id }) => id)).not.toContain(one.id);
		expect(all(plan, context).find(({ id }) => id === one.id)?.level).toBe(one.level);
	});
	it.each(EVERY.filter(({ fixes }) => fixes === undefined))('$id offers fixes, and each of them ends it', (one) => {
		const { plan, context } = plans(one);
		const { fixes } = all(plan, context).find(({ id }) => id === one.id)!;
		expect(fixes.length).toBeGreaterThan(0);
		for (const fix of fixes) {
			const mended = fix.apply(plan);
			expect(planSchema.safeParse(mended).success, fix.label).toBe(true);
			expect(
				all(mended, context).map(({ id }) => id),
				fix.label
			).not.toContain(one.id);
		}
	});
	it.each(EVERY.filter(({ fixes }) => fixes === 'none'))('$id says in words what to do', (one) => {
		const { plan, context } = plans(one);
		const found = all(plan, context).find(({ id }) => id === one.id)!;
		expect(found.fixes).toEqual([]);
		expect(found.why.length).toBeGreaterThan(20);
	});
});

describe('a radio path', () => {
	const by = (signalDbm: number, writes: boolean): string[] => {
		const plan = having({ network: { way: 'radio', ssid: 'x', countryCode: 'GB', radio: { ...RADIO, signalDbm } } });
		const stream = { on: 'path', from: 'sources', what: 'film', bitsPerSec: 8e6 } as const;
		const { claims: usual, context } = derive(chain, plan, calm);
		const claims = [...usual, writes ? ({ ...stream, writes: true } as const) : stream];
		return assessNetwork(plan.network, context, claims).map(({ id }) => id);
	};
	it('is enough, thin, or too slow as the signal falls, never two of these at once', () => {
		const seen = Array.from({ length: 60 }, (_, n) => by(-35 - n, false));
		const state = seen.map((ids) =>
			ids.includes('network.too-slow') ? 2 : ids.includes('network.thin') ? 1 : 0
		) as number[];
		expect(state[0]).toBe(0);
		expect(state.at(-1)).toBe(2);
		expect(state).toContain(1);
		expect(state).toEqual([...state].sort((a, b) => a - b));
		for (const ids of seen)
			expect(ids.filter((id) => id === 'network.thin' || id === 'network.too-slow').length).toBeLessThanOrEqual(1);
	});
	it('is cautioned against for a recording, and a cable is not', () => {
		expect(by(-40, true)).toContain('network.record-by-radio');
		expect(by(-40, false)).not.toContain('network.record-by-radio');
	});
});

describe('fixes that a practitioner would take', () => {
	const cured = (plan: Plan, context: Surroundings, id: string) =>
		curesOf(
			judges,
			plan,
			context,
			all(plan, context).find((finding) => finding.id === id)!
		);
	it('another supply is fed as the weak one is', () => {
		const weak = having({ parts: { supply: 'supply-5-1' } });
		const [fix] = cured(weak, calm, all(weak, calm).find(({ id }) => /^power\.(?:too-weak|only-just)$/.test(id))!.id);
		const supply = calm.find(fix!.apply(weak).parts.supply!) as { sockets: { way: string; plug: string }[] };
		expect(supply.sockets.find(({ way }) => way === 'in')!.plug).toMatch(/^mains-/);
	});
	it('a box against rain stays one', () => {
		const hot = having({ parts: { case: 'case-weather' }, heat: { roomC: 60, place: 'room' } });
		const found = all(hot, calm).find(({ id }) => id === 'heat.throttles' || id === 'heat.thin-margin')!;
		for (const { apply } of found.fixes) expect(apply(hot).parts.case).toBe('case-weather');
	});
	it('pages for which the memory is too small are drawn from the day on at which that is pressed', () => {
		const { plan } = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!;
		const around = contextFor(judges, demoWorkshop, 'ticket-hatch');
		const small = { ...plan, parts: { ...plan.parts, board: 'board-half-512' } };
		const [fix] = cured(small, around, 'notices.memory');
		expect(fix!.apply(small, Date.UTC(2026, 11, 1, 12)).notices).toMatchObject({
			shownBy: 'pictures',
			picturesFrom: '2026-12-01'
		});
	});
	it('where the sun skims the horizon a rule by it says how sure it is', () => {
		const sunny = having({
			programme: {
				lists: [{ id: 'a', title: 'A', items: [], wishes: [], valid: [] }],
				rules: [{ ...newRule('r', 'a'), from: { at: 'sunrise', time: '00:00', offsetMin: 0 } }]
			}
		});
		const idsAt = (latitudeDeg: number) =>
			all(sunny, { ...calm, venue: { ...calm.venue, place: { latitudeDeg, longitudeDeg: 14 } } }).map(({ id }) => id);
		expect(idsAt(66.2)).toContain('programme.sun-unsure');
		expect(idsAt(60)).not.toContain('programme.sun-unsure');
	});
});

it('an output that is changed does not keep the name of the one before', () => {
	const changed = having({ parts: { converter: 'conv-usb-96' } });
	const finding = all(changed, calm).find(({ id }) => id === 'sound.card-of-another')!;
	expect(finding.level).toBe('stop');
	expect(finding.why).toContain(calm.find(bench.plan.parts.converter!)!.name);
	expect(benchFor(writers, changed, calm).soundCards).toEqual([]);
	const kept = finding.fixes.at(-1)!.apply(changed);
	expect(all(kept, calm).map(({ id }) => id)).not.toContain('sound.card-of-another');
	expect(all(nameCard({ cardId: 'Other' })(changed), calm).map(({ id }) => id)).not.toContain('sound.card-of-another');
});

it('capitals are taller from the side, and in daylight', () => {
	const straight = { eyes: 'usual', light: 'room', angleDeg: 0 } as const;
	expect(capitalArcmin({ ...straight, angleDeg: 60 })).toBeCloseTo(40, 6);
	expect(capitalArcmin({ ...straight, light: 'daylight' })).toBeGreaterThan(
		capitalArcmin({ ...straight, light: 'bright' })
	);
});

it('a set whose edges nobody has read leaves pictures 3.5 % of each side, and text 5', () => {
	const around = contextFor(judges, demoWorkshop, 'ticket-hatch');
	const { plan } = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!;
	const unread: Plan = {
		...plan,
		parts: { ...plan.parts, screen: 'screen-1080-cuts' },
		picture: {
			...plan.picture,
			edid: '',
			mode: null,
			edges: { left: 0, right: 0, top: 0, bottom: 0 },
			wholePicture: 'none'
		}
	};
	const leaves = (tried: Plan) =>
		all(tried, around)
			.find(({ id }) => id === 'picture.edges-unread')!
			.fixes.at(-1)!
			.apply(tried).picture.edges;
	expect(leaves(unread)).toEqual({ left: 96, right: 96, top: 54, bottom: 54 });
	expect(leaves({ ...unread, notices: { ...unread.notices, used: false } })).toEqual({
		left: 67,
		right: 67,
		top: 38,
		bottom: 38
	});
});
