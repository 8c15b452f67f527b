import { CALM_THEME } from '../src/core/standards/pageTheme';
import { HATCH_NOTICES } from './notices';
import { newList, newRule, type Moment } from '$core/onAir/when';
import { emptyPlan, type Plan } from '$core/plan/plan';
import { VERSIONS, WORKSHOP_VERSION, type Endpoint, type Workshop } from '$core/plan/workshop';
import { withPreset } from '$core/formats/playlist/preset';
import { demoMedia, FILM } from './facts';

const item = (
	id: string,
	location: string,
	title: string,
	durationSec: number | null = null
): Plan['sources']['items'][number] => ({ id, location, title, durationSec, extra: [], part: null });
/** One of the island's stations, with what is said of it beside its title. */
const station = (id: string, name: string, title: string): Plan['sources']['items'][number] => {
	const url = `http://radio.skerrin.example:8000/${name}`;
	return { ...item(id, url, title), extra: withPreset([], { language: 'en', logo: `${url}.png` }) };
};
/** An entry of which not all is played, or not as loud. */
const part = (
	of: Plan['sources']['items'][number],
	what: Partial<NonNullable<Plan['sources']['items'][number]['part']>>
): Plan['sources']['items'][number] => ({ ...of, part: { fromSec: 0, untilSec: null, quieterDb: 0, ...what } });
const OPENS: Moment = { at: 'opens', time: '00:00', offsetMin: 0 };
const CLOSES: Moment = { at: 'closes', time: '00:00', offsetMin: 0 };
const also = (...parts: string[]): Plan['parts']['also'] => parts.map((part) => ({ part, count: 1 }));
const endpoint = (id: string, plan: Plan): Endpoint => ({ id, plan, probe: null, written: null, done: {} });

const lounge = emptyPlan('Bunkhouse lounge', 'lounge');
const foghorn = emptyPlan('Fog-horn room', 'foghorn');
const bench = emptyPlan('Test bench', 'bench');
const lamp = emptyPlan('Lamp-room film', 'lamp', 'film');
const gallery = emptyPlan('Gallery wall', 'gallery', 'second-screen');
const hatch = emptyPlan('Ticket hatch', 'hatch', 'notices');

/** Made for the demo; its other half was thrown away. */
const KEEPER_KEY = 'ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIAsY+gk/mSXIbKws7gQl3MdINidjazRfiNwZNyr9AOFJ keeper@skerrin';

/** Made by the volunteers, so no catalogue has it. */
const demoOwnParts: Workshop['parts'] = [
	{
		kind: 'case',
		id: 'own-lamp-box',
		name: 'Box turned from an old lamp housing',
		sure: 'measured',
		source: 'Measured at the station: 6.1 W inside, 21 K warmer than the room after an hour.',
		figures: {},
		price: 0,
		sockets: [],
		draw: null,
		header: null,
		kPerW: 3.4,
		closed: true,
		sealed: false,
		spacersMm: 5
	}
];

/** Skerrin Light, a volunteer-run lighthouse station on an invented island. Everything in it is made up. */
export const demoWorkshop: Workshop = {
	yphos: 'workshop',
	version: WORKSHOP_VERSION,
	links: { ...VERSIONS },
	venue: {
		name: 'Skerrin Light',
		timeZone: 'Atlantic/Faroe',
		currency: 'EUR',
		pricePerKwh: 0.31,
		mainsV: 230,
		lan: { cidr: '192.168.40.0/24', poolFrom: '192.168.40.100', poolTo: '192.168.40.199', gateway: '192.168.40.1' },
		opening: [
			{ weekdays: [], season: { from: '04-01', until: '09-30' }, from: '10:00', until: '18:00' },
			{ weekdays: ['Wed', 'Sat', 'Sun'], season: { from: '10-01', until: '03-31' }, from: '11:00', until: '15:30' }
		],
		closedOnHolidays: true,
		holidays: [
			{ date: '2026-12-24', title: 'Christmas Eve' },
			{ date: '2026-12-25', title: 'Christmas Day' },
			{ date: '2027-01-01', title: 'New Year' },
			{ date: '2027-06-23', title: 'Lamp night' },
			{ date: '2027-12-25', title: 'Christmas Day' }
		],
		place: { latitudeDeg: 62.1, longitudeDeg: -7.4 },
		noticeTheme: CALM_THEME
	},
	parts: demoOwnParts,
	owned: { 'amp-old': 1, 'sp-shelf': 1, 'sp-powered': 1, 'screen-43-analogue': 1, 'lead-speaker-5': 2, 'card-16': 1 },
	shipping: [
		{ label: 'Parcel from the mainland', price: 6.9 },
		{ label: 'Boat to the island', price: 4 }
	],
	media: demoMedia,
	endpoints: [
		endpoint('bunkhouse-lounge', {
			...lounge,
			brief: {
				...lounge.brief,
				room: 'Bunkhouse',
				purpose:
					'Music and island radio for whoever stays the night, through the old amplifier. Nobody should have to touch it.',
				soundWithinSec: 30
			},
			parts: {
				...lounge.parts,
				board: 'board-full-4',
				supply: 'supply-5-3',
				card: 'card-32',
				converter: 'conv-usb-96',
				amplifier: 'amp-old',
				speakers: 'sp-shelf',
				case: 'case-vented',
				cooler: 'cooler-stick',
				also: also('lead-usb-b', 'lead-rca-2', 'lead-speaker-5', 'lead-net-2')
			},
			power: { ...lounge.power, onHoursPerDay: 15 },
			network: {
				...lounge.network,
				login: 'key',
				sshKeys: [KEEPER_KEY],
				updates: { nightly: true, at: '09:30' }
			},
			sources: {
				...lounge.sources,
				listTitle: 'Evenings in the bunkhouse',
				items: [
					item('s1', 'Harbour bell in A.wav', 'Harbour bell in A', 4),
					// The horn is louder than the rest, and somebody speaks before the studio take begins.
					part(item('s2', 'Night ferry.wav', 'Night ferry', 3), { quieterDb: 4 }),
					part(item('s3', 'Lens turning, studio.flac', 'Lens turning, studio take', 213), {
						fromSec: 6.5,
						untilSec: 208
					}),
					item('s5', '/srv/music/Evenings/Slow tide.flac', 'Slow tide', 254),
					station('s4', 'harbour', 'Harbour Radio'),
					station('s6', 'night', 'Night programme')
				],
				stores: [
					{
						id: 'music',
						name: 'music',
						kind: 'nfs',
						server: '192.168.40.5',
						share: '/export/music',
						version: 'auto',
						access: 'read'
					}
				],
				waitForNetwork: false
			},
			sound: {
				...lounge.sound,
				cardId: 'Field24',
				cardFor: 'conv-usb-96',
				volumeAt: 'converter',
				volumeDb: -29,
				mixerName: 'Master',
				distanceM: 2.5,
				place: 'room',
				roomM3: 75,
				furnishing: 'ordinary',
				loudestDb: 95
			},
			programme: {
				...lounge.programme,
				quiet: [{ weekdays: [], from: '22:00', until: '07:00' }],
				whenGone: 'back'
			}
		}),
		// Ships with real mistakes, so that findings and fixes have something to say.
		endpoint('fog-horn-room', {
			...foghorn,
			brief: {
				...foghorn.brief,
				room: 'Engine house',
				purpose: 'The old fog signal, heard in the museum through powered speakers by optical cable.',
				soundWithinSec: 15
			},
			parts: {
				...foghorn.parts,
				board: 'board-full-1',
				supply: 'supply-5-1',
				lead: 'lead-a-micro-thin-2',
				card: 'card-16',
				converter: 'conv-optical',
				amplifier: 'amp-powered',
				speakers: 'sp-powered',
				also: also('clock-i2c')
			},
			network: { ...foghorn.network, way: 'none' },
			card: { ...foghorn.card, root: 'overlay' },
			sources: {
				...foghorn.sources,
				listTitle: 'Fog signal',
				items: [
					item('s1', 'http://radio.skerrin.example:8000/night', 'Night programme'),
					item('s2', 'Fog signal.wav', 'Fog signal', 5)
				]
			},
			sound: {
				...foghorn.sound,
				cardId: 'Opto',
				cardFor: 'conv-optical',
				door: 'iec958',
				travel: 'fixed',
				fixedRateHz: 44_100,
				volumeAt: 'fixed',
				distanceM: 4,
				place: 'room',
				roomM3: 110,
				furnishing: 'hard',
				loudestDb: 85
			},
			// Once at each full hour by day, and nothing between; that it starts by itself was forgotten.
			programme: {
				...foghorn.programme,
				startAtBoot: false,
				loop: 'once',
				lists: [{ ...newList('signal', 'Fog signal'), items: ['s2'] }],
				rules: [
					{
						...newRule('hourly', 'signal', 'Full hour'),
						from: { at: 'clock', time: '09:00', offsetMin: 0 },
						until: { at: 'clock', time: '18:00', offsetMin: 0 },
						each: { everyMin: 60, forMin: 1 }
					}
				],
				otherwise: 'rest'
			}
		}),
		endpoint('test-bench', {
			...bench,
			brief: {
				...bench.brief,
				room: 'Workshop',
				purpose:
					'One steady tone, over and over, for trying converters and leads; and what a phone or the old computer sends.',
				soundWithinSec: 30
			},
			parts: {
				...bench.parts,
				board: 'board-full-4',
				supply: 'supply-5-3',
				card: 'card-16',
				converter: 'conv-usb-16',
				amplifier: 'amp-mono',
				speakers: 'sp-shelf',
				case: 'case-open',
				also: also('lead-jack-jack', 'lead-speaker-5', 'lead-net-2', 'supply-12-2')
			},
			network: { ...bench.network, user: '', login: 'none' },
			sources: {
				...bench.sources,
				listTitle: 'Line-up',
				items: [item('s1', 'Line-up tone 440.wav', 'Line-up tone, 440 Hz', 5)]
			},
			sound: {
				...bench.sound,
				cardId: 'Plain48',
				cardFor: 'conv-usb-16',
				travel: 'shared',
				fixedRateHz: 48_000,
				volumeAt: 'player',
				volumeDb: -6,
				distanceM: 1,
				place: 'room',
				roomM3: 30,
				loudestDb: 95
			},
			// Whoever solders plays from a pocket, or from the old computer; open pairing is one of the mistakes.
			receiving: { ...bench.receiving, used: true, pairing: 'open', server: true, rtp: true, farthestM: 8, walls: 1 }
		}),
		// What a well-meant box of spare parts comes to: two add-ons for the same pins, and a hot place.
		endpoint('lamp-room', {
			...lamp,
			brief: {
				...lamp.brief,
				room: 'Lamp room',
				purpose: 'A film of the lens turning, on an old monitor beside the stairs, with its own quiet soundtrack.',
				video: { codec: 'h265', widthPx: 1280, heightPx: 720, framesPerSec: 25, bitDepth: 8 },
				soundWithinSec: 40
			},
			parts: {
				...lamp.parts,
				board: 'board-full-1',
				supply: 'supply-5-2a5',
				card: 'card-32',
				converter: 'conv-header-192',
				amplifier: 'amp-old',
				speakers: 'sp-shelf',
				screen: 'screen-43-analogue',
				case: 'own-lamp-box',
				also: also('ladder-666', 'fan-5-switched', 'lead-vga-2', 'lead-rca-2', 'lead-speaker-5')
			},
			heat: { ...lamp.heat, place: 'sun', roomC: 27 },
			network: { ...lamp.network, address: { kind: 'fixed', ip: '192.168.40.120' } },
			sources: {
				...lamp.sources,
				listTitle: 'Lens and lamp',
				items: [
					item('s1', FILM, 'Lens turning', 8),
					item('s2', '/srv/stick/Lighting the lamp.mp4', 'Lighting the lamp', 192)
				],
				stores: [{ id: 'stick', name: 'stick', kind: 'stick', label: 'LAMPROOM', fileSystem: 'exfat' }],
				waitForNetwork: false
			},
			picture: {
				...lamp.picture,
				connector: 'DPI-1',
				// More than the ladder passes: one of the mistakes.
				mode: { widthPx: 1280, heightPx: 1024, milliHz: 60_020, interlaced: false },
				afterCut: 'comes-on',
				controls: [
					{ action: 'pause', by: 'phone', key: '', scancode: '' },
					{ action: 'shut-down', by: 'phone', key: '', scancode: '' }
				],
				distanceM: 3,
				light: 'bright'
			},
			sound: {
				...lamp.sound,
				cardId: 'Header192',
				cardFor: 'conv-header-192',
				volumeAt: 'player',
				volumeDb: -20,
				distanceM: 3,
				place: 'room',
				roomM3: 45,
				furnishing: 'hard',
				loudestDb: 85
			},
			// As long as somebody may come in.
			programme: {
				...lamp.programme,
				atChange: 'finish',
				rules: [{ ...newRule('open', 'all', 'While we are open'), from: OPENS, until: CLOSES }],
				otherwise: 'rest'
			}
		}),
		endpoint('ticket-hatch', {
			...hatch,
			brief: {
				...hatch.brief,
				room: 'Ticket hatch',
				purpose:
					'Ferry times, opening hours and a warning about the steps, on a set that hangs upright and cuts its edges.',
				soundWithinSec: 60
			},
			parts: {
				...hatch.parts,
				board: 'board-full-1',
				supply: 'supply-5-2a5',
				card: 'card-16',
				screen: 'screen-1080-cuts',
				case: 'case-vented',
				cooler: 'cooler-stick',
				also: also('lead-display-2', 'lead-net-2')
			},
			network: { ...hatch.network, login: 'key', sshKeys: [KEEPER_KEY], updates: { nightly: true, at: '09:30' } },
			card: {
				...hatch.card,
				bootStyle: 'cmdline',
				bootText: 'console=tty1 root=/dev/mmcblk0p2 rootfstype=ext4 rootwait'
			},
			sources: {
				...hatch.sources,
				listTitle: 'At the hatch',
				items: [
					item('s1', 'Ferry times.png', 'Ferry times'),
					item('s2', 'Opening hours.png', 'Opening hours'),
					item('s3', 'Mind the steps.png', 'Mind the steps')
				],
				waitForNetwork: false
			},
			sound: { ...hatch.sound, used: false },
			notices: HATCH_NOTICES,
			// Nobody has made a key yet, and the way is an open one.
			delivery: {
				...hatch.delivery,
				used: true,
				from: 'http://files.skerrin.example/hatch',
				times: ['06:45', '12:30']
			},
			// One of its rules never holds: the museum is closed on Tuesdays while the tours run.
			programme: {
				...hatch.programme,
				lists: [
					{
						id: 'ferry',
						title: 'Ferry and steps',
						items: ['page-tides', 's3'],
						// Who waits for the ferry wants its times above all.
						wishes: [{ item: 'page-tides', perHour: null, percent: 75, apartFrom: [] }],
						valid: []
					},
					{ id: 'hours', title: 'Tickets and tours', items: ['page-tickets', 'page-tour', 's2'], wishes: [], valid: [] }
				],
				rules: [
					{
						...newRule('tour', 'hours', 'Guided tour'),
						weekdays: ['Tue'],
						season: { from: '10-01', until: '03-31' },
						from: OPENS,
						until: CLOSES
					},
					{
						...newRule('ferry', 'ferry', 'Before the ferry'),
						weekdays: ['Mon', 'Wed', 'Fri', 'Sat'],
						from: { at: 'clock', time: '16:30', offsetMin: 0 },
						until: { at: 'clock', time: '17:20', offsetMin: 0 }
					},
					{
						...newRule('closed', 'hours', 'After closing'),
						holidays: 'never',
						from: CLOSES,
						until: { at: 'sunset', time: '00:00', offsetMin: 60 }
					}
				]
			},
			picture: {
				...hatch.picture,
				writesEdid: true,
				turn: 90,
				wholePicture: 'none',
				edges: { left: 48, right: 44, top: 26, bottom: 28 },
				distanceM: 3.5,
				hours: { from: '07:30', until: '20:00' },
				afterCut: 'stays-off',
				controls: [
					{ action: 'next', by: 'keyboard', key: 'KEY_RIGHT', scancode: '' },
					{ action: 'shut-down', by: 'keyboard', key: 'KEY_POWER', scancode: '' }
				]
			}
		}),
		endpoint('gallery-wall', {
			...gallery,
			brief: {
				...gallery.brief,
				room: 'Gallery',
				purpose: 'A second screen for the computer in the office: what the keeper has open, large on the wall.',
				video: { codec: 'h264', widthPx: 1280, heightPx: 720, framesPerSec: 30, bitDepth: 8 },
				soundWithinSec: 60
			},
			parts: {
				...gallery.parts,
				board: 'board-full-4',
				supply: 'supply-5-3',
				card: 'card-16',
				screen: 'screen-1080',
				case: 'case-vented',
				cooler: 'cooler-stick',
				also: also('lead-micro-display-2', 'lead-net-2')
			},
			network: { ...gallery.network, login: 'key', sshKeys: [KEEPER_KEY] },
			sound: { ...gallery.sound, used: false },
			picture: { ...gallery.picture, writesEdid: true, distanceM: 4 }
		})
	]
};
