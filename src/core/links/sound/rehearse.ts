import { readControlWord } from '../../formats/alsa/controlName';
import { overlaysIn } from '../../formats/boot/overlays';
import { tellerFor, type Machine, type Program, type Teller } from '../../engines/machine';
import type { BenchSoundCard } from './bench';
import { findControls, findDoor, type Door } from './door';
import { computeGainChain } from './gainChain';
import type { Heard } from './heard';
import { treat, type Route } from './treatment';
import { SOUND_WORDS } from './words';

/** The player spreads one channel over two with equal power, so that each gets 3 dB less. Measured on a real start. */
const SPREAD_DB = -3.01;

/** The sound cards of the bench, the door to them that asound.conf opens, and what reaches the ear. */
export default function rehearseSound(machine: Machine): void {
	const converters = new Converters(machine);
	converters.live();
	converters.show();
	machine.programs.set('/usr/bin/amixer', amixer(converters));
	machine.offers.openSound = (deviceName, wanted, onLost) => converters.open(deviceName, wanted, onLost);
}

/** One program's hold on a card. */
interface Opened {
	readonly heard: Heard;
	readonly lost: () => void;
	readonly card: string;
	/** It came by the mixing device. */
	readonly mixes: boolean;
}

/** The converters while the machine runs: which are there, how loud they are set, what plays through which. */
class Converters {
	readonly present = new Set<string>();
	readonly volumeDb = new Map<string, number>();
	readonly tell: Teller<typeof SOUND_WORDS>;
	#lastOpened = '';
	/** The player was told to make no sound. */
	#neverSounds = false;
	/** Who has opened what; the last of them is told of. */
	#opened: readonly Opened[] = [];

	constructor(readonly machine: Machine) {
		this.tell = tellerFor(machine, 'sound', SOUND_WORDS);
	}

	/** Follows the machine's starts and cuts, the player's rests, and what befalls the hardware. */
	live(): void {
		const { machine, tell } = this;
		machine.on('userspace', () => {
			this.#neverSounds = false;
			this.#forget();
			this.#comeReady(() => !machine.activeFaults.has('converter-unplugged'));
		});
		machine.on('mains-off', () => (this.#opened = []));
		machine.on('brown-out', (why) => tell.stateFor('ear', 'off', why));
		// What never sounds is no more silent while nothing is on.
		machine.on('player-rests', (why) => !this.#neverSounds && tell.stateFor('ear', 'quiet', why));
		machine.on('player-silent', (why) => {
			this.#neverSounds = true;
			tell.stateFor('ear', 'unused', why);
		});
		machine.on('player-fails', (why) => tell.stateFor('ear', 'silence', why));
		machine.on('fault', ({ name, on }) => {
			if (name === 'amplifier-muted') {
				tell.event(on ? 'amplifier-muted' : 'amplifier-open', 'fault');
				if (machine.powered) this.#listen();
			} else if (name === 'converter-unplugged') {
				tell.event(on ? 'unplugged' : 'plugged-in', 'fault');
				if (on) this.#unplug();
				else if (machine.powered) this.#comeReady(() => true);
			}
		});
	}

	/** What the kernel shows of them: a name each, its id by its number, and the node of its controls. */
	show(): void {
		const { disk } = this.machine;
		for (const prefix of ['/proc/asound', '/dev/snd'])
			disk.mounts.push({
				prefix,
				read: (path) => this.#files().get(path) ?? null,
				list: (folder) => this.#names(folder)
			});
	}

	/** Scripts ask for it again and again; it changes only when a card comes or goes. */
	#shown: { files: ReadonlyMap<string, string>; readonly names: Map<string, string[]> } | null = null;

	#files(): ReadonlyMap<string, string> {
		this.#shown ??= {
			names: new Map(),
			files: new Map(
				this.machine.bench.soundCards.flatMap(({ cardId, deviceNumber }, n) =>
					this.present.has(cardId)
						? [
								[`/proc/asound/${cardId}`, ''],
								[`/proc/asound/card${n}/id`, `${cardId}\n`],
								[`/dev/snd/controlC${n}`, ''],
								[
									`/proc/asound/${cardId}/pcm${deviceNumber}p/sub0/status`,
									this.#opened.some(({ card }) => card === cardId) ? 'state: RUNNING\n' : 'closed\n'
								]
							]
						: []
				)
			)
		};
		return this.#shown.files;
	}

	#names(folder: string): string[] {
		const files = this.#files();
		const { names } = this.#shown!;
		let known = names.get(folder);
		if (!known)
			names.set(
				folder,
				(known = [
					...new Set(
						[...files.keys()].flatMap((path) =>
							path.startsWith(`${folder}/`) ? [path.slice(folder.length + 1).split('/')[0]!] : []
						)
					)
				])
			);
		return known;
	}

	/** Opens a device by name for samples of one kind; a string says why that fails. */
	open(deviceName: string, wanted: Wanted, lost: () => void): ReturnType<NonNullable<Machine['offers']['openSound']>> {
		const { machine } = this;
		const door = findDoor(asoundConf(machine), deviceName);
		if (typeof door === 'string') return door;
		const card = machine.bench.soundCards.find(
			(known) => known.cardId === door.cardId && known.deviceNumber === door.deviceNumber
		);
		if (!card || !this.present.has(card.cardId))
			return `there is no sound card ${door.cardId}, device ${door.deviceNumber}`;
		if (!card.ways.includes(door.door)) return `alsa-lib knows no way ${door.door} to the card ${door.cardId}`;
		const heard = hear(machine, card, door, wanted, this.volumeDb.get(card.cardId)!);
		if (typeof heard === 'string') return heard;
		// Hardware is opened once; who would share it must all come by the mixing device. Source: alsa-lib, pcm_dmix.
		const others = this.#opened.filter((known) => known.card === card.cardId);
		if (others.length && !(door.mixes && others.every(({ mixes }) => mixes)))
			return `${others.at(-1)!.heard.title} holds the sound card ${card.cardId}`;
		const opened: Opened = { heard, lost, card: card.cardId, mixes: door.mixes };
		this.#opened = [...this.#opened, opened];
		this.#shown = null;
		const { sampleRateHz, bitDepth, channels, treatment } = heard;
		const opening = { sampleRateHz, bitDepth, channels, treatment };
		if (JSON.stringify(opening) !== this.#lastOpened) this.tell.event('opened', 'good', opening);
		this.#lastOpened = JSON.stringify(opening);
		this.#listen();
		return {
			close: () => {
				if (!this.#opened.includes(opened)) return;
				this.#opened = this.#opened.filter((known) => known !== opened);
				this.#shown = null;
				if (machine.powered) this.#listen();
			}
		};
	}

	#forget(): void {
		this.present.clear();
		this.#shown = null;
		this.machine.world.changed();
		this.#opened = [];
		this.#lastOpened = '';
	}

	#comeReady(mayCome: () => boolean): void {
		const { machine } = this;
		for (const card of machine.bench.soundCards)
			machine.after(card.readyMs, () => {
				if (mayCome() && !machine.absent.has(card.cardId) && isNamed(machine, card)) this.#plug(card);
			});
	}

	#plug(card: BenchSoundCard): void {
		const { machine } = this;
		this.present.add(card.cardId);
		this.#shown = null;
		machine.modules.add('snd');
		if (card.assumed)
			machine.assumed.add(`the kernel calls the converter ${card.cardId}, which no probe report has said yet`);
		machine.world.changed();
		this.volumeDb.set(card.cardId, card.volume?.startDb ?? 0);
		this.tell.event('found', 'info', { name: card.name, cardId: card.cardId });
		machine.systemd.reach('sound.target');
		machine.emit('sound-card-added', card.cardId);
		this.#tellOthers();
	}

	/** What a program gets that asks for no device in particular: a tone for trying, whatever somebody installs later. */
	#tellOthers(): void {
		const isHere = (cardId: string): boolean => this.machine.bench.soundCards.some((known) => known.cardId === cardId);
		const conf = asoundConf(this.machine);
		if (conf === null) return this.tell.event('others-get-first', 'bad');
		const door = findDoor(conf, 'default');
		const controls = findControls(conf);
		if (typeof door === 'string') this.tell.event('others-get-nothing', 'bad', { why: door });
		else if (!isHere(door.cardId) || !door.converts) this.tell.event('others-get-else', 'bad', { ...door });
		if (!isHere(controls)) this.tell.event('mixers-get-else', 'bad', { controls });
	}

	#unplug(): void {
		const opened = this.#opened;
		this.#forget();
		if (opened.length) this.tell.state('ear', 'silence', 'is-unplugged');
		for (const { lost } of opened) lost();
	}

	#listen(): void {
		const { machine, tell } = this;
		const playing = this.#opened.at(-1);
		if (!playing) return tell.state('ear', 'silence', 'nothing-plays');
		if (machine.bench.amplifier?.muted || machine.activeFaults.has('amplifier-muted'))
			return tell.state('ear', 'silence', 'muted');
		const title = this.#opened.map(({ heard }) => heard.title).join(' + ');
		tell.mark('ear', this.#opened.map(({ heard }) => heard.id).join(' + '), { ...playing.heard, title });
		tell.state('ear', 'sound', 'plays', { title });
	}
}

/** What sits on the header without a memory of its own is there only when the board's start file names it. */
function isNamed(machine: Machine, { overlay, name }: BenchSoundCard): boolean {
	if (overlay === null) return true;
	const { startFile, firstPartition } = machine.bench;
	if (startFile === null || overlay === '') {
		machine.assumed.add(`the board\u2019s start file names ${name}, which the run sheet asks for`);
		return true;
	}
	const at = startFile === 'config.txt' ? 'config.txt' : 'extlinux/extlinux.conf';
	return overlaysIn(startFile, machine.disk.read(`${firstPartition}/${at}`) ?? '').includes(overlay);
}

/** Sets a control of a converter that is there. Source: amixer(1), sset. */
const amixer =
	({ tell, present, volumeDb }: Converters): Program =>
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

const asoundConf = ({ disk }: Machine): string | null => disk.files.get('/etc/asound.conf')?.text ?? null;

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
		id: wanted.id,
		sampleRateHz: treatment.sampleRateHz,
		bitDepth: treatment.bitDepth,
		channels: treatment.channels,
		treatment: treatment.words,
		rmsDbfs: wanted.level ? wanted.level.rmsDbfs + atConverterDb : null,
		pitchHz: wanted.level?.pitchHz ?? null,
		loudestDb: loudest(machine, card, atConverterDb)
	};
}

function loudest(machine: Machine, card: BenchSoundCard, volumeDb: number): number | null {
	const { amplifier, speakers, fieldDb } = machine.bench;
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
		fieldDb,
		inSeries: speakers.inSeries,
		speakers: speakers.count,
		summing: 'power'
	}).splDb;
}
