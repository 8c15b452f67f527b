import { contains, readAddress, readCidr } from '../../formats/ip/cidr';
import { letsIn, tellerFor, type Machine, type Process, type Program, type Teller } from '../../engines/machine';
import type { PlayedMedia } from '../../parts/media';
import { GIVE_WAY_PATH, NAME_PATH } from './files';
import { GIVE_WAY } from './scripts';
import { PLAYS_UNIT, SINK_UNIT } from './ways';
import { RECEIVING_WORDS } from './words';

/** It hides again after so long unless told otherwise. Source: bluez 5.66, main.conf, DiscoverableTimeout. */
const USUALLY_SEEN_MS = 180_000;
/** A phone connects and begins; a program lets go of the converter when nothing more comes. Typical. */
const CONNECTS_MS = 1500;
const LETS_GO_MS = 700;
/** give-way.sh looks every second, and waits until it has been silent for three. */
const LOOKS_MS = 1000;
const WAITS_MS = 3000;

const SENT: Omit<PlayedMedia, 'codec'> = {
	lossless: false,
	sampleRateHz: 44_100,
	bitDepth: 16,
	channels: 2,
	durationMs: null,
	level: null
};

/** A program that waits for somebody to send. */
interface Receiver {
	readonly process: Process;
	/** The ALSA device that it opens. */
	readonly device: string;
	/** Whom it takes sound from; null: everybody. */
	readonly takes: ((from: string) => boolean) | null;
	/** Opens the converter; a string says why it could not. */
	begin(title: string, codec: string): string | null;
	end(): void;
}

type Tell = Teller<typeof RECEIVING_WORDS>;

/** Phones and computers that send, the programs that play it, and the list that gives way. */
export default function rehearseReceiving(machine: Machine): void {
	const tell = tellerFor(machine, 'receiving', RECEIVING_WORDS);
	const room = new Receivers(machine, tell);
	machine.programs.set('/usr/bin/bluealsa', (process) => room.offersSink(process));
	machine.programs.set('/usr/bin/bluealsa-aplay', (process) => {
		if (isKnownToBus(process, machine)) room.waits('phone', process, option(process, '--pcm') ?? 'default', null);
	});
	machine.programs.set('/usr/bin/pulseaudio', serve(room));
	machine.programs.set('/usr/bin/bluetoothctl', (process) => isKnownToBus(process, machine) && room.asked(process));
	machine.programs.set('/usr/bin/bt-agent', (process) => isKnownToBus(process, machine) && room.pairs(process));
	machine.offers.playAddress = (process) => {
		const port = Number(/^rtp:\/\/0\.0\.0\.0:(\d+)$/.exec(process.argv.at(-1) ?? '')?.[1] ?? NaN);
		if (Number.isNaN(port) || !process.argv.includes('--loop-playlist=force')) return false;
		room.waits(
			`udp ${port}`,
			process,
			(option(process, '--audio-device') ?? 'alsa/default').replace(/^alsa\//, ''),
			null
		);
		return true;
	};
	machine.byHeart.set(GIVE_WAY_PATH, {
		text: `${GIVE_WAY.join('\n')}\n`,
		program: (process) => room.givesWay(process)
	});
	machine.on('mains-off', () => room.forget());
	machine.on('fault', ({ name, on }) => {
		if (!machine.powered) return;
		if (name === 'phone-sends' && on) phoneSends(machine, room, tell);
		if (name === 'phone-sends' && !on) room.stops('phone', () => tell.event('phone-stops', 'fault'));
		if (name === 'computer-sends') computerSends(machine, room, tell, on);
	});
}

/** The system bus hangs up on a user of the moment, unless a package lets it look such up. Seen at a real start. Source: nss-systemd(8). */
function isKnownToBus(process: Process, { systemd, disk }: Machine): boolean {
	if (!systemd.isOther(process.unit) || disk.packages.get('libnss-systemd') === 'installed') return true;
	process.err('Could not connect to the system bus: The connection is closed\n');
	process.after(300, () => process.exit(1));
	return false;
}

/** The value of an option on a command line; null: it is not there. */
const option = ({ argv }: Process, name: string): string | null =>
	argv.find((arg) => arg.startsWith(`${name}=`))?.slice(name.length + 1) ?? null;

class Receivers {
	readonly #waiting = new Map<string, Receiver>();
	/** Units that have the converter open for what is sent. */
	readonly #sounding = new Set<string | null>();
	sink = false;
	pairing = false;
	/** Until when phones see it, ms; 0: they do not. */
	#seenUntilMs = 0;
	#seenForMs = USUALLY_SEEN_MS;

	constructor(
		readonly machine: Machine,
		readonly tell: Tell
	) {}

	/** bluealsa: the place to which phones send. */
	offersSink(process: Process): void {
		const profiles = process.argv.flatMap((arg, n, all) =>
			arg === '-p' ? [all[n + 1]] : arg.startsWith('--profile=') ? [arg.slice('--profile='.length)] : []
		);
		this.sink = profiles.includes('a2dp-sink');
		process.onKill(() => (this.sink = false));
	}

	/** Source: bluetoothctl(1); bluez 5.66, main.conf, DiscoverableTimeout. */
	asked(process: Process): void {
		const [, verb, value = ''] = process.argv;
		if (verb === 'discoverable-timeout') this.#seenForMs = Number(value) === 0 ? Infinity : Number(value) * 1000;
		else if (verb === 'discoverable')
			this.#seenUntilMs = value === 'on' ? this.machine.clock.nowMs + this.#seenForMs : 0;
		else this.machine.unknown(process.argv.join(' '));
		process.after(200, () => process.exit(0));
	}

	get isSeen(): boolean {
		return this.machine.clock.nowMs < this.#seenUntilMs;
	}

	/** Power went: no program runs any more, and nobody is told. */
	forget(): void {
		this.#seenUntilMs = 0;
		this.#waiting.clear();
		this.#sounding.clear();
		this.#lookers.clear();
		this.sink = this.pairing = false;
	}

	pairs(process: Process): void {
		this.pairing = process.argv.includes('--capability=NoInputNoOutput');
		process.onKill(() => (this.pairing = false));
	}

	/** `letsGo`: it closes the converter when nobody sends. */
	waits(at: string, process: Process, device: string, takes: Receiver['takes'], letsGo = true): void {
		if (at !== 'phone' && !this.machine.systemd.isOther(process.unit))
			this.tell.event('as-root', 'bad', { unit: process.unit ?? '' });
		let open: { close(): void } | null = null;
		const end = (): void => {
			const was = open;
			open = null;
			was?.close();
			if (was && letsGo) this.#opens(process.unit, false);
		};
		const receiver: Receiver = {
			process,
			device,
			takes,
			end,
			begin: (title, codec) => {
				const refused = this.machine.systemd.mayUse(process.unit, 'audio', 'char-alsa');
				if (refused) return refused;
				const opened =
					this.machine.offers.openSound?.(
						device,
						{ ...SENT, codec, title, id: title, gainDb: 0, forcedRateHz: null } as Parameters<
							NonNullable<Machine['offers']['openSound']>
						>[1],
						() => {
							open = null;
							this.#opens(process.unit, false);
						}
					) ?? 'this endpoint has no sound';
				if (typeof opened === 'string') return opened;
				open = opened;
				this.#opens(process.unit, true);
				return null;
			}
		};
		this.#waiting.set(at, receiver);
		process.onKill(() => {
			if (this.#waiting.get(at) === receiver) this.#waiting.delete(at);
			end();
			this.#opens(process.unit, false);
		});
	}

	at(place: string): Receiver | undefined {
		return this.#waiting.get(place);
	}

	stops(place: string, say: () => void): void {
		const receiver = this.#waiting.get(place);
		say();
		receiver?.process.after(LETS_GO_MS, () => receiver.end());
	}

	#opens(unit: string | null, on: boolean): void {
		if (on) this.#sounding.add(unit);
		else this.#sounding.delete(unit);
		for (const look of [...this.#lookers]) look();
	}

	readonly #lookers = new Set<() => void>();

	/** give-way.sh, known by heart: it looks each second, which is told here when there is something to see. */
	givesWay(process: Process): void {
		const { machine, tell } = this;
		const [player = '', ...units] = process.argv.slice(process.argv.indexOf(GIVE_WAY_PATH) + 1);
		const sends = (): boolean => units.some((unit) => this.#sounding.has(unit));
		let rests = false;
		let silentSinceMs: number | null = null;
		const stop = (): void => {
			if (!sends() || !machine.systemd.isActive(player)) return;
			rests = true;
			tell.event('rests', 'info');
			machine.systemd.stop(player);
		};
		const look = (): void => {
			if (sends()) {
				silentSinceMs = null;
				return process.after(LOOKS_MS, stop);
			}
			const since = (silentSinceMs = machine.clock.nowMs);
			process.after(WAITS_MS, () => {
				if (!rests || silentSinceMs !== since || sends()) return;
				rests = false;
				tell.event('goes-on', 'info');
				machine.systemd.start(player);
			});
		};
		// A player that is started meanwhile, by a timer or by hand, is stopped at the next look.
		machine.on('unit-asked', ({ verb, unit }) => {
			if (this.#lookers.has(look) && verb === 'start' && unit === player) process.after(LOOKS_MS, stop);
		});
		this.#lookers.add(look);
		process.onKill(() => this.#lookers.delete(look));
		if (sends()) look();
	}
}

function phoneSends(machine: Machine, room: Receivers, tell: Tell): void {
	const { bench, disk } = machine;
	if (!bench.receiving.phone) return tell.event('not-found', 'fault', { why: 'nothing here is made for phones' });
	if (!bench.receiving.adapter) return tell.event('no-adapter', 'bad');
	if (disk.packages.get('bluez') !== 'installed')
		return tell.event('not-found', 'bad', { why: 'bluez is not installed' });
	if (!room.sink) return tell.event('not-found', 'bad', { why: `${SINK_UNIT} offers none` });
	machine.assumed.add('the kernel has driver and firmware of the Bluetooth adapter');
	const { looksFor, known } = bench.receiving.phone;
	if (known) machine.assumed.add('the phone was paired, as the run sheet asks');
	else if (!room.pairing) return tell.event('not-paired', 'bad', { why: 'nothing answers it' });
	else if (!room.isSeen) return tell.event('not-paired', 'bad', { why: 'the endpoint does not show itself' });
	const name = nameOf(machine);
	if (name !== looksFor) tell.event('other-name', 'bad', { wanted: looksFor, name });
	tell.event('phone-sends', 'fault', { name });
	const receiver = room.at('phone');
	if (!receiver) return tell.event('not-played', 'bad', { why: `${PLAYS_UNIT} does not run` });
	receiver.process.after(CONNECTS_MS, () => {
		if (!machine.activeFaults.has('phone-sends')) return;
		const why = receiver.begin('A phone', 'sbc');
		if (why !== null) tell.event('not-played', 'bad', { why });
	});
}

/** The name that BlueZ takes: the pretty one, else the host's. Source: bluez 5.66, plugins/hostname.c. */
function nameOf({ disk }: Machine): string {
	const line = /^PRETTY_HOSTNAME=(.*)$/m.exec(disk.read(NAME_PATH) ?? '')?.[1]?.trim() ?? '';
	const pretty = /^"((?:[^"\\]|\\.)*)"$/.exec(line)?.[1]?.replace(/\\(.)/g, '$1') ?? line;
	return pretty || (disk.read('/etc/hostname')?.trim() ?? '');
}

function computerSends(machine: Machine, room: Receivers, tell: Tell, on: boolean): void {
	const from = machine.bench.network.near[0] ?? '';
	const ways = machine.bench.receiving.computer;
	if (on && ways.length === 0) return tell.event('not-played', 'fault', { why: 'nothing here is made for computers' });
	for (const { by, port, protocol } of ways) {
		const place = `${protocol} ${port}`;
		if (!on) {
			room.stops(place, () => tell.event('computer-stops', 'fault'));
			continue;
		}
		if (!machine.online) {
			tell.event('not-played', 'bad', { why: 'the endpoint is not on the network' });
			continue;
		}
		tell.event('computer-sends', 'fault', { by, port });
		const receiver = room.at(place);
		if (!letsIn(machine, { from, protocol, port })) tell.event('kept-out', 'bad', { port });
		else if (!receiver) tell.event('nobody-there', 'bad', { port });
		else if (receiver.takes && !receiver.takes(from))
			tell.event('not-played', 'bad', { why: `the sound server takes nothing from ${from}` });
		else {
			const why = receiver.begin(`A computer by ${by}`, protocol === 'tcp' ? 'pcm' : 'aac');
			if (why !== null) tell.event('not-played', 'bad', { why });
		}
	}
}

/** Modules that are simulated, or that do not matter here. Source: PulseAudio 16.1, modules. */
const MODULES = ['module-alsa-sink', 'module-native-protocol-tcp', 'module-suspend-on-idle'];

/** The sound server does what its script loads. */
const serve =
	(room: Receivers): Program =>
	(process, machine) => {
		const path = option(process, '--file');
		const file = path === null ? undefined : machine.disk.get(path);
		const text = file && machine.systemd.mayRead(process.unit, file.mode) ? file.text : null;
		if (text === null || path === null) {
			process.err(`Failed to open configuration file: ${file ? 'Permission denied' : 'No such file or directory'}\n`);
			return process.after(300, () => process.exit(1));
		}
		const modules = new Map<string, ReadonlyMap<string, string>>();
		for (const line of text.split('\n')) {
			const [verb, name = '', ...rest] = line.trim().split(/[ \t]+/);
			if (verb !== 'load-module') {
				if (verb !== '' && !line.startsWith('#')) machine.unknown(`${path}: ${line}`);
				continue;
			}
			if (!MODULES.includes(name)) {
				process.err(`Failed to load module "${name}"\n`);
				return process.after(300, () => process.exit(1));
			}
			modules.set(
				name,
				new Map(rest.map((pair) => [pair.slice(0, pair.indexOf('=')), pair.slice(pair.indexOf('=') + 1)] as const))
			);
		}
		const tcp = modules.get('module-native-protocol-tcp');
		if (!tcp) return;
		const ranges = (tcp.get('auth-ip-acl') ?? '').split(';').filter(Boolean);
		const cookieless = tcp.get('auth-cookie-enabled') === '0';
		const takes = (from: string): boolean => {
			const address = readAddress(from);
			return (
				cookieless &&
				address.ok &&
				ranges.some((range) => {
					const network = readCidr(range.includes('/') ? range : `${range}/32`);
					return network.ok && contains(network.value, address.value);
				})
			);
		};
		room.waits(
			`tcp ${tcp.get('port') ?? '4713'}`,
			process,
			modules.get('module-alsa-sink')?.get('device') ?? 'nothing',
			takes,
			modules.has('module-suspend-on-idle')
		);
	};
