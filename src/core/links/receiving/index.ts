/**
 * Receiving: others send their sound to this endpoint: phones by Bluetooth (BlueZ and bluez-alsa), computers by the sound server's
 * protocol (PulseAudio), anything by RTP. Start at `ways.ts`.
 */
import { entryClaims } from '../../basics/entries';
import { withUnit } from '../../basics/format';
import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { delaysOf, keptMs, minutesToGap } from './delay';
import { FADING_DB, reachM } from './reach';
import { RECEIVING_FAULTS } from './faults';
import { serviceClaims } from './services';
import { receivingSettings, type ReceivingSettings } from './settings';
import { adapterDbm, announced, SERVER_PORT, WAY_WORDS, waysOf } from './ways';
import './offers';

/** 48 kHz, 16 bit, stereo, as the tunnel sends it. */
const SERVER_BPS = 48_000 * 16 * 2;
/** As our own command for RTP asks. */
const RTP_BPS = 220_000;

const MEANWHILE = { rests: 'rests', mixes: 'goes on beneath' } as const;

const claims = (settings: ReceivingSettings, context: Context): Claim[] => [
	...serviceClaims(settings, context),
	...(settings.server
		? ([
				{ on: 'path', from: 'receiving', what: 'a computer\u2019s sound', bitsPerSec: SERVER_BPS },
				{
					on: 'listen',
					from: 'receiving',
					what: 'sound server',
					port: SERVER_PORT,
					protocol: 'tcp',
					setting: 'receiving.server'
				}
			] as const)
		: []),
	...(settings.rtp
		? ([
				{ on: 'path', from: 'receiving', what: 'sound by RTP', bitsPerSec: RTP_BPS },
				{
					on: 'listen',
					from: 'receiving',
					what: 'sound by RTP',
					port: settings.rtpPort,
					protocol: 'udp',
					setting: 'receiving.rtpPort'
				}
			] as const)
		: []),
	...entryClaims('receiving', 'receiving', [
		[
			'receiving.bluetooth',
			'Takes sound by',
			waysOf(settings)
				.map((way) => WAY_WORDS[way])
				.join(', ') || 'nothing'
		],
		['receiving.name', 'Called', announced(settings, context)],
		['receiving.meanwhile', 'The list meanwhile', MEANWHILE[settings.meanwhile]]
	])
];

function figures(settings: ReceivingSettings, context: Context): Figure[] {
	const ways = waysOf(settings);
	const delays = delaysOf(settings, context.facts.soundShared === true);
	const dbm = adapterDbm(context);
	return [
		{
			id: 'ways',
			setting: 'receiving.bluetooth',
			label: 'Receives',
			text:
				ways.length > 1
					? `${WAY_WORDS[ways[0]!]} + ${ways.length - 1} more`
					: (ways.map((way) => WAY_WORDS[way])[0] ?? 'nothing yet'),
			value: ways.length,
			sure: 'exact',
			from: `${ways.map((way) => WAY_WORDS[way]).join(', ') || 'Nothing'}: you set it.`,
			telling: true
		},
		...delays.map(({ way, stages, totalMs }): Figure => ({
			id: `delay-${way}`,
			setting: 'receiving.bufferMs',
			label: `Delay by ${WAY_WORDS[way]}`,
			text: withUnit(totalMs, 0, 'ms'),
			value: totalMs,
			sure: 'typical',
			from: `${stages.map(({ what, ms }) => `${what} ${ms.toFixed(0)}\u2009ms`).join(' + ')}.`
		})),
		...(settings.bluetooth
			? [
					{
						id: 'codec',
						setting: 'receiving.bluetooth',
						label: 'Codec by Bluetooth',
						text: 'SBC, as a rule 328\u2009kbit/s',
						value: 328_000,
						sure: 'typical',
						from: 'The one that every phone and every Debian has: Debian\u2019s bluez-alsa receives nothing else. The phone chooses its rate, at most 328\u2009kbit/s in high quality at 44.1\u2009kHz. Source: A2DP 1.3, 4.3.2 and table 4.7; bluealsa --help in Debian 12.'
					} as const
				]
			: []),
		...(settings.bluetooth && dbm !== null
			? [
					{
						id: 'reach',
						setting: 'receiving.farthestM',
						label: 'Bluetooth reaches',
						text: `${reachM(dbm, settings.walls, FADING_DB).toFixed(0)} to ${reachM(dbm, settings.walls, 0).toFixed(0)}\u2009m`,
						value: reachM(dbm, settings.walls, FADING_DB),
						sure: 'typical',
						from: `Through ${settings.walls} wall${settings.walls === 1 ? '' : 's'}; the less with people in the way or a phone in a pocket. The weaker of phone and adapter counts.`
					} as const
				]
			: []),
		...(settings.rtp
			? [
					{
						id: 'gap',
						setting: 'receiving.bufferMs',
						label: 'RTP may drop out every',
						text: withUnit(minutesToGap(keptMs(settings.bufferMs, context.facts.soundShared === true)), 0, 'min'),
						value: minutesToGap(keptMs(settings.bufferMs, context.facts.soundShared === true)),
						sure: 'typical',
						from: 'Two clocks run apart by up to 100 millionths, nobody matches them, and half of what is kept ready is used up. The sound server and Bluetooth match their sender.'
					} as const
				]
			: [])
	];
}

/** What a new plan begins with. */
const CALM: ReceivingSettings = {
	used: false,
	name: '',
	bluetooth: true,
	pairing: 'once',
	beginsPercent: 60,
	farthestM: 6,
	walls: 0,
	server: false,
	rtp: false,
	rtpPort: 5004,
	bufferMs: 300,
	meanwhile: 'rests',
	quietToo: true
};

/** The link by which others send their sound. */
export const receiving: Link<'receiving', ReceivingSettings> = {
	id: 'receiving',
	title: 'Receiving',
	settings: receivingSettings,
	version: 1,
	empty: () => CALM,
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'z',
	place: { column: 'content', row: 0, wires: [{ to: 'parts', carries: 'signal' }] },
	publish: (settings) => ({
		receiving: {
			name: settings.name,
			ways: waysOf(settings),
			bufferMs: settings.bufferMs,
			quietToo: settings.quietToo && waysOf(settings).length > 0
		}
	}),
	faults: RECEIVING_FAULTS,
	claims,
	figures
};
