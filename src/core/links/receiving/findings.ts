import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { apartMs, ECHO_MS, keptMs } from './delay';
import { FADING_DB, marginDb, reachM } from './reach';
import type { ReceivingSettings } from './settings';
import { adapterDbm, announced, programsThatSound, waysOf } from './ways';

const own = changing<ReceivingSettings>('receiving');
const NAME_BYTES = 60;

/** Whether what others send can come, be told apart, and be heard. */
export const assessReceiving = (settings: ReceivingSettings, context: Context): Finding[] => [
	...assessEnds(settings, context),
	...assessShare(settings, context),
	...(settings.bluetooth ? assessBluetooth(settings, context) : []),
	...assessName(settings, context),
	...assessRooms(settings, context),
	...assessQuiet(settings, context)
];

const without = (context: Context): Fix => ({
	label: 'Do without receiving',
	apply: context.change.use('receiving', false)
});

/** A way in, a way out, and a network where the way in is one. */
function assessEnds(settings: ReceivingSettings, context: Context): Finding[] {
	const { facts, change } = context;
	const ways = waysOf(settings);
	const overNetwork = settings.server || settings.rtp;
	return [
		...(ways.length === 0
			? [
					{
						id: 'receiving.no-way',
						level: 'stop' as const,
						title: 'Nobody can send anything yet',
						why: 'Choose Bluetooth for phones, the sound server for computers with Linux, RTP for anything with ffmpeg.',
						setting: 'receiving.bluetooth' as const,
						fixes: [{ label: 'By Bluetooth', apply: own({ bluetooth: true }) }, without(context)]
					}
				]
			: []),
		...(facts.cardId === undefined
			? [
					{
						id: 'receiving.no-sound',
						level: 'stop' as const,
						title: 'What is sent is heard by nobody',
						why: 'This endpoint does without sound.',
						setting: 'receiving' as const,
						fixes: [{ label: 'Add sound', apply: change.use('sound') }, without(context)]
					}
				]
			: []),
		...(overNetwork && facts.way === 'none'
			? [
					{
						id: 'receiving.no-network',
						level: 'stop' as const,
						title: 'Computers send over the network, and there is none',
						why: 'The sound server and RTP need a network; Bluetooth does not.',
						setting: settings.server ? ('receiving.server' as const) : ('receiving.rtp' as const),
						fixes: [
							{ label: 'Use Ethernet', apply: change.useWired() },
							{ label: 'By Bluetooth only', apply: own({ server: false, rtp: false, bluetooth: true }) }
						]
					}
				]
			: [])
	];
}

/** Hardware is opened by one program at a time; mixing is for those that come by dmix. */
function assessShare(settings: ReceivingSettings, context: Context): Finding[] {
	const { facts, change } = context;
	const programs = programsThatSound(settings, context);
	if (facts.cardId === undefined || waysOf(settings).length === 0) return [];
	if (programs > 1 && !facts.soundShared)
		return [
			{
				id: 'receiving.not-shared',
				level: 'stop',
				title: `${programs} programs want the sound output, and one holds it`,
				why: 'A converter that is opened directly belongs to one program: what is sent finds it busy for as long as the list plays. Shared, all of them sound through one mixing device, at one rate; what has another rate is converted.',
				setting: 'receiving',
				fixes: [{ label: 'Share the sound output', apply: change.shareSound() }, without(context)]
			}
		];
	if (settings.meanwhile === 'mixes' && programs > 1)
		return [
			{
				id: 'receiving.sum-clips',
				level: 'note',
				title: 'Two at full level together clip',
				why: 'The mixing device adds samples and cuts off what goes over. Keep both 6\u2009dB below full, or let the list rest.',
				setting: 'receiving.meanwhile',
				fixes: facts.programme ? [{ label: 'Let the list rest', apply: own({ meanwhile: 'rests' }) }] : []
			}
		];
	return [];
}

function assessBluetooth(settings: ReceivingSettings, context: Context): Finding[] {
	const { facts, change, drawer } = context;
	const findings: Finding[] = [];
	const dbm = adapterDbm(context);
	const adapter = drawer.flatMap((part) => (part.kind === 'add-on' && part.bluetoothDbm !== null ? [part] : []))[0];
	const board = context.part('board', facts.parts.board);
	if (board && dbm === null)
		findings.push({
			id: 'receiving.no-adapter',
			level: 'stop',
			title: 'Nothing here has Bluetooth',
			why: `${board.name} has none, and no part brings it.`,
			setting: 'receiving.bluetooth',
			fixes: [
				...(adapter ? [{ label: `Add ${adapter.name}`, apply: change.addPart(adapter.id) }] : []),
				...(settings.server || settings.rtp
					? [{ label: 'Not by Bluetooth', apply: own({ bluetooth: false }) }]
					: [without(context)])
			]
		});
	if (settings.pairing === 'once' && facts.keeper === '')
		findings.push({
			id: 'receiving.nobody-pairs',
			level: 'stop',
			title: 'Nobody can let a phone pair',
			why: 'Pairing is begun by a command on the endpoint, and nobody can log in there. Let somebody in, or leave pairing open to whoever is near.',
			setting: 'receiving.pairing',
			fixes: [{ label: 'Leave pairing open', apply: own({ pairing: 'open' }) }]
		});
	if (settings.pairing === 'open')
		findings.push({
			id: 'receiving.open-pairing',
			level: 'caution',
			title: 'Whoever is near may play here',
			why: 'It asks for no code, so a neighbour behind the wall and a passer-by can pair as well, at night too. Paired once, only known phones come back.',
			setting: 'receiving.pairing',
			fixes: [{ label: 'Pair once, by a command', apply: own({ pairing: 'once' }) }]
		});
	if (dbm !== null) {
		const margin = marginDb(dbm, settings.farthestM, settings.walls);
		if (margin < FADING_DB)
			findings.push({
				id: 'receiving.far',
				level: margin < 0 ? 'stop' : 'caution',
				title: margin < 0 ? 'The phone is out of reach' : 'At the far end it will break up at times',
				why: `At ${settings.farthestM}\u2009m and ${settings.walls} wall${settings.walls === 1 ? '' : 's'} ${margin < 0 ? `${(-margin).toFixed(0)}\u2009dB are missing` : `${margin.toFixed(0)}\u2009dB are left`}; people in the way or a phone in a pocket take ${FADING_DB}. It reaches ${Math.max(0, reachM(dbm, settings.walls, FADING_DB)).toFixed(0)}\u2009m with certainty. Stand it nearer, or let a computer send over the network.`,
				setting: 'receiving.farthestM',
				fixes: []
			});
		if (facts.bandGhz === 2.4)
			findings.push({
				id: 'receiving.one-band',
				level: 'caution',
				title: 'Bluetooth and its own Wi-Fi share one band',
				why: 'On a small board one chip and often one antenna serve both in turns: while the network carries much, sound by Bluetooth stutters, and the other way round.',
				setting: 'receiving.bluetooth',
				fixes: [
					...(board?.wired ? [{ label: 'Use Ethernet', apply: change.useWired() }] : []),
					...(board?.fiveGhz ? [{ label: 'Use 5\u2009GHz for Wi-Fi', apply: change.useUpperBand() }] : [])
				]
			});
	}
	return findings;
}

/** On a phone two of one name cannot be told apart. */
function assessName(settings: ReceivingSettings, context: Context): Finding[] {
	const { facts, others } = context;
	if (!settings.bluetooth) return [];
	const name = announced(settings, context);
	const namesOf = (all: typeof others): string[] =>
		all.flatMap((other) =>
			other.receiving?.ways.includes('bluetooth') ? [other.receiving.name || other.endpointName] : []
		);
	const taken = namesOf(others);
	if (!taken.includes(name)) return [];
	const better = [facts.endpointName, `${facts.endpointName}, ${facts.hostName}`, facts.hostName].find(
		(free) => !taken.includes(free) && free.length <= NAME_BYTES
	);
	return [
		{
			id: 'receiving.same-name',
			level: 'caution',
			title: `Two endpoints are called \u201c${name}\u201d`,
			why: 'A phone shows both, and nobody knows which is which.',
			setting: 'receiving.name',
			fixes: better ? [{ label: `Call it \u201c${better}\u201d`, apply: own({ name: better }) }] : []
		}
	];
}

/** Rooms that get the same from one computer. */
function assessRooms(settings: ReceivingSettings, { others, facts }: Context): Finding[] {
	const isSent = ({ ways }: { readonly ways: readonly string[] }): boolean =>
		ways.includes('server') || ways.includes('rtp');
	const rooms = others.flatMap(({ receiving }) => (receiving && isSent(receiving) ? [receiving.bufferMs] : []));
	if (!(settings.server || settings.rtp) || rooms.length === 0) return [];
	const ms = apartMs(keptMs(settings.bufferMs, facts.soundShared === true), rooms);
	if (ms <= ECHO_MS) return [];
	const even = rooms.every((other) => other === settings.bufferMs);
	return [
		{
			id: 'receiving.rooms-apart',
			level: 'note',
			title: `From room to room it sounds up to ${ms.toFixed(0)}\u2009ms apart`,
			why: `Each begins when its own buffer is full, and nothing here keeps rooms in step; beyond ${ECHO_MS}\u2009ms one hears an echo where both are heard at once. Behind closed doors it does not matter.`,
			setting: 'receiving.bufferMs',
			fixes: even ? [] : [{ label: `Keep ${rooms[0]!}\u2009ms, as the other`, apply: own({ bufferMs: rooms[0]! }) }]
		}
	];
}

const assessQuiet = (settings: ReceivingSettings, { facts }: Context): Finding[] =>
	!settings.quietToo && facts.programme && facts.programme.quiet.length > 0 && waysOf(settings).length > 0
		? [
				{
					id: 'receiving.quiet-broken',
					level: 'caution',
					title: 'Quiet hours do not silence what is sent',
					why: 'The list is silent then; a phone is not.',
					setting: 'receiving.quietToo',
					fixes: [{ label: 'Keep quiet hours for both', apply: own({ quietToo: true }) }]
				}
			]
		: [];

export default assessReceiving satisfies Judge<ReceivingSettings>;
