import { readControlWord } from '../../formats/alsa/controlName';
import { readAlsaConf, type AlsaBlock } from '../../formats/alsa/conf';
import { readDeviceName } from '../../formats/alsa/deviceName';
import { tellerFor, type Fault, type Machine, type Program, type Teller } from '../../engines/machine';
import type { BenchSoundCard } from './bench';
import { computeGainChain } from './gainChain';
import type { Heard } from './heard';
import { treat, type Route } from './treatment';
import { SOUND_WORDS } from './words';

/** What can befall converter and amplifier while a rehearsal runs. */
export const SOUND_FAULTS = {
	'converter-unplugged': { label: 'Unplug converter', lastsMs: 15_000 },
	'amplifier-muted': { label: 'Mute amplifier', lastsMs: 15_000 }
} as const satisfies Record<string, Fault>;

/** The player spreads one channel over two with equal power, so that each gets 3 dB less. Measured on a real start. */
const SPREAD_DB = -3.01;

/** The sound cards of the bench, the door to them that asound.conf opens, and what reaches the ear. */
export function rehearseSound(machine: Machine): void {
	const tell = tellerFor(machine, 'sound', SOUND_WORDS);
	const present = new Set<string>();
	const volumeDb = new Map<string, number>();
	let lastOpened = '';
	let playing: { card: BenchSoundCard; heard: Heard; lost: () => void } | null = null;

	const plug = (card: BenchSoundCard): void => {
		present.add(card.cardId);
		if (card.assumed)
			machine.assumed.add(`the kernel calls the converter ${card.cardId}, which no probe report has said yet`);
		machine.world.changed();
		volumeDb.set(card.cardId, card.volume?.startDb ?? 0);
		tell.event('found', 'info', { name: card.name, cardId: card.cardId });
		machine.systemd.reach('sound.target');
		machine.emit('sound-card-added', card.cardId);
	};
	const listen = (): void => {
		if (!playing) return tell.state('ear', 'silence', 'nothing-plays');
		if (machine.bench.amplifier?.muted || machine.activeFaults.has('amplifier-muted'))
			return tell.state('ear', 'silence', 'muted');
		tell.mark('ear', playing.heard.title, playing.heard);
		tell.state('ear', 'sound', 'plays', { title: playing.heard.title });
	};

	machine.on('userspace', () => {
		present.clear();
		machine.world.changed();
		playing = null;
		lastOpened = '';
		for (const card of machine.bench.soundCards)
			machine.after(card.readyMs, () => {
				if (!machine.activeFaults.has('converter-unplugged') && !machine.absent.has(card.cardId)) plug(card);
			});
	});
	machine.on('mains-off', () => (playing = null));
	machine.on('brown-out', (why) => tell.stateFor('ear', 'off', why));
	machine.on('player-rests', (why) => tell.stateFor('ear', 'quiet', why));
	machine.on('player-fails', (why) => tell.stateFor('ear', 'silence', why));
	machine.on('fault', ({ name, on }) => {
		if (name === 'amplifier-muted') {
			tell.event(on ? 'amplifier-muted' : 'amplifier-open', 'fault');
			if (machine.powered) listen();
		}
		if (name !== 'converter-unplugged') return;
		tell.event(on ? 'unplugged' : 'plugged-in', 'fault');
		if (on) {
			present.clear();
			machine.world.changed();
			lastOpened = '';
			const lost = playing?.lost;
			playing = null;
			if (lost) tell.state('ear', 'silence', 'is-unplugged');
			lost?.();
		} else if (machine.powered)
			for (const card of machine.bench.soundCards)
				machine.after(card.readyMs, () => {
					if (!machine.absent.has(card.cardId)) plug(card);
				});
	});

	machine.disk.mounts.push({
		prefix: '/proc/asound',
		read: (path) => (present.has(path.slice('/proc/asound/'.length)) ? '' : null),
		list: (path) => (path === '/proc/asound' ? [...present] : [])
	});
	machine.programs.set('/usr/bin/amixer', amixer(tell, present, volumeDb));

	machine.offers.openSound = (deviceName, wanted, onLost) => {
		const door = findDoor(machine, deviceName);
		if (typeof door === 'string') return door;
		const card = machine.bench.soundCards.find(
			(known) => known.cardId === door.cardId && known.deviceNumber === door.deviceNumber
		);
		if (!card || !present.has(card.cardId)) return `there is no sound card ${door.cardId}, device ${door.deviceNumber}`;
		const heard = hear(machine, card, door, wanted, volumeDb.get(card.cardId)!);
		if (typeof heard === 'string') return heard;
		const opened = { card, heard, lost: onLost };
		playing = opened;
		const { sampleRateHz, bitDepth, channels } = heard;
		const opening = { sampleRateHz, bitDepth, channels, treatment: heard.treatment };
		if (JSON.stringify(opening) !== lastOpened) tell.event('opened', 'good', opening);
		lastOpened = JSON.stringify(opening);
		listen();
		return {
			close() {
				if (playing !== opened) return;
				playing = null;
				if (machine.powered) listen();
			}
		};
	};
}

/** Sets a control of a converter that is there. Source: amixer(1), sset. */
const amixer =
	(tell: Teller<typeof SOUND_WORDS>, present: ReadonlySet<string>, volumeDb: Map<string, number>): Program =>
	(process, machine) => {
		const { argv } = process;
		const cardId = argv[argv.indexOf('--card') + 1];
		const [, word = '', level = ''] = argv.slice(argv.indexOf('--') + 1);
		const control = readControlWord(word);
		const card = machine.bench.soundCards.find((known) => known.cardId === cardId && present.has(known.cardId));
		const wanted = /^(-?\d+(?:\.\d+)?)dB$/.exec(level);
		if (!card?.volume || card.volume.name !== control || !wanted) {
			process.err(`the converter has no control "${control ?? word}"\n`);
			tell.event('no-control', 'bad', { control: control ?? word });
			return process.after(30, () => process.exit(1));
		}
		volumeDb.set(card.cardId, Math.max(card.volume.lowestDb, Number(wanted[1])));
		tell.event('volume-set', 'info', { db: volumeDb.get(card.cardId)! });
		process.after(30, () => process.exit(0));
	};

type Wanted = Parameters<NonNullable<Machine['offers']['openSound']>>[1];

/** What comes out for samples of this kind through this door; a string says why nothing does. */
function hear(machine: Machine, card: BenchSoundCard, door: Door, wanted: Wanted, converterDb: number): Heard | string {
	const route: Route = {
		playback: card.playback,
		door: door.door,
		forcedRateHz: door.rateHz ?? wanted.forcedRateHz,
		gainDb: wanted.gainDb
	};
	const treatment = treat(wanted, route);
	if (treatment.verdict === 'refused') return treatment.words;
	const spreadDb = treatment.channels > wanted.channels && wanted.channels === 1 ? SPREAD_DB : 0;
	const atConverterDb = wanted.gainDb + spreadDb + converterDb;
	return {
		title: wanted.title,
		sampleRateHz: treatment.sampleRateHz,
		bitDepth: treatment.bitDepth,
		channels: treatment.channels,
		treatment: treatment.words,
		rmsDbfs: wanted.level ? wanted.level.rmsDbfs + atConverterDb : null,
		pitchHz: wanted.level?.pitchHz ?? null,
		loudestDb: loudest(machine, card, atConverterDb)
	};
}

type Door = {
	readonly door: Route['door'];
	readonly cardId: string;
	readonly deviceNumber: number;
	readonly rateHz: number | null;
};

/** Follows a device name through asound.conf to the hardware; a string says where the path ends. */
function findDoor(machine: Machine, name: string, depth = 0): Door | string {
	// alsa-lib reads its configuration whole before it opens anything, hardware by its own name too.
	const conf = readAlsaConf(machine.disk.files.get('/etc/asound.conf')?.text ?? '');
	if (!conf.ok) return conf.faults[0]!.message;
	const { plugin, cardId, deviceNumber } = readDeviceName(name);
	if (plugin === 'hw' || plugin === 'iec958' || plugin === 'hdmi')
		return cardId ? { door: plugin, cardId, deviceNumber, rateHz: null } : `"${name}" names no card`;
	const pcm = (conf.value.pcm as AlsaBlock | undefined)?.[plugin] as AlsaBlock | undefined;
	if (!pcm || depth > 8) return `asound.conf knows no device "${plugin}"`;
	const slave = pcm.slave as AlsaBlock | undefined;
	if (typeof slave?.pcm !== 'string') return `the device "${plugin}" leads nowhere`;
	const next = findDoor(machine, slave.pcm, depth + 1);
	return typeof next === 'string' ? next : { ...next, rateHz: next.rateHz ?? (slave.rate ? Number(slave.rate) : null) };
}

function loudest(machine: Machine, card: BenchSoundCard, volumeDb: number): number | null {
	const { amplifier, speakers, distanceM } = machine.bench;
	if (!amplifier || !speakers) return null;
	return computeGainChain({
		dacFullScaleVrms: card.fullScaleVrms,
		signalDbfs: 0,
		digitalVolumeDb: volumeDb,
		ampGainDb: amplifier.gainDb,
		ampClipVrms: amplifier.clipVrms,
		speakerOhm: speakers.ohm,
		sensitivityDb: speakers.sensitivityDb,
		sensitivityUnit: 'dB/2.83V/1m',
		distanceM,
		speakers: speakers.count,
		summing: 'power'
	}).splDb;
}
