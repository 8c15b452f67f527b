import { emptyPlan, type Plan } from '$core/plan/plan';
import { WORKSHOP_VERSION, type Endpoint, type Workshop } from '$core/plan/workshop';
import { demoMedia } from './media';
import { demoParts } from './parts';

const item = (
	id: string,
	location: string,
	title: string,
	durationSec: number | null = null
): Plan['sources']['items'][number] => ({ id, location, title, durationSec, extra: [] });
const endpoint = (id: string, plan: Plan): Endpoint => ({ id, plan, probe: null, written: null, done: {} });

const lounge = emptyPlan('Bunkhouse lounge', 'lounge');
const foghorn = emptyPlan('Fog-horn room', 'foghorn');
const bench = emptyPlan('Test bench', 'bench');

/** Skerrin Light, a volunteer-run lighthouse station on an invented island. Everything in it is made up. */
export const demoWorkshop: Workshop = {
	yphos: 'workshop',
	version: WORKSHOP_VERSION,
	venue: { name: 'Skerrin Light', timeZone: 'Atlantic/Faroe', currency: 'EUR' },
	parts: demoParts,
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
				board: 'board-full-4',
				supply: 'supply-5-3',
				card: 'card-32',
				converter: 'conv-usb-96',
				amplifier: 'amp-old',
				speakers: 'sp-shelf'
			},
			sources: {
				...lounge.sources,
				listTitle: 'Evenings in the bunkhouse',
				items: [
					item('s1', 'Harbour bell in A.wav', 'Harbour bell in A', 4),
					item('s2', 'Night ferry.wav', 'Night ferry', 3),
					item('s3', 'Lens turning, studio.flac', 'Lens turning, studio take', 213),
					item('s4', 'http://radio.skerrin.example:8000/harbour', 'Harbour Radio')
				],
				waitForNetwork: false
			},
			sound: {
				...lounge.sound,
				cardId: 'Field24',
				volumeAt: 'converter',
				volumeDb: -24,
				mixerName: 'Master',
				distanceM: 2.5,
				loudestDb: 95
			},
			programme: { ...lounge.programme, quiet: [{ weekdays: [], from: '22:00', until: '07:00' }] }
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
				board: 'board-full-1',
				supply: 'supply-5-1',
				card: 'card-16',
				converter: 'conv-optical',
				amplifier: 'amp-powered',
				speakers: 'sp-powered'
			},
			power: { leadLengthM: 2, leadAreaMm2: 0.08 },
			network: { ...foghorn.network, way: 'none' },
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
				travel: 'fixed',
				fixedRateHz: 44_100,
				volumeAt: 'fixed',
				distanceM: 4,
				loudestDb: 85
			},
			programme: { ...foghorn.programme, startAtBoot: false }
		}),
		endpoint('test-bench', {
			...bench,
			brief: {
				...bench.brief,
				room: 'Workshop',
				purpose: 'One steady tone, over and over, for trying converters and leads.',
				soundWithinSec: 30
			},
			parts: {
				board: 'board-full-4',
				supply: 'supply-5-3',
				card: 'card-16',
				converter: 'conv-usb-16',
				amplifier: 'amp-mono',
				speakers: 'sp-shelf'
			},
			network: { ...bench.network, way: 'wired' },
			sources: {
				...bench.sources,
				listTitle: 'Line-up',
				items: [item('s1', 'Line-up tone 440.wav', 'Line-up tone, 440 Hz', 5)]
			},
			sound: { ...bench.sound, cardId: 'Plain48', volumeAt: 'player', volumeDb: -6, distanceM: 1, loudestDb: 95 }
		})
	]
};
