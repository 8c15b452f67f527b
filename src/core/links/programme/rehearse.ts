import { readMpvConf } from '../../formats/mpv/conf';
import { isStream, readM3u, type PlaylistEntry } from '../../formats/playlist';
import { wallClockMs } from '../../formats/systemd/zone';
import type { Machine, PlayedMedia, Process } from '../../engines/machine';
import { PLAYER_UNIT } from '../../cardFile';
import { QUIET_HOURS_PATH } from './files';
import { isQuiet } from './quiet';

/** From its start to its first question for a file; to end after its device is lost; to notice that a stream has dried up. Typical. */
const PLAYER_START_MS = 700;
const DEVICE_LOST_MS = 300;
const STREAM_DRY_MS = 10_000;

interface Playing {
	readonly streams: boolean;
	next(): void;
	after(ms: number, run: () => void): void;
}

/** The player, and the small programs that tell it when to be quiet. */
export function rehearseProgramme(machine: Machine): void {
	let playing: Playing | null = null;
	machine.programs.set('/usr/bin/mpv', (process) => play(process, machine, (now) => (playing = now)));
	machine.programs.set('/opt/yphos/bin/may-sound.sh', (process) => {
		const now = new Date(wallClockMs(machine.timeZone, machine.nowUtcMs));
		const quiet = isQuiet(
			machine.disk.files.get(QUIET_HOURS_PATH)?.text ?? '',
			((now.getUTCDay() + 6) % 7) + 1,
			now.getUTCHours() * 100 + now.getUTCMinutes()
		);
		if (quiet) {
			machine.log('programme', 'Quiet hours: the player stays off');
			machine.setAudible('quiet', 'quiet hours', null);
		}
		process.after(15, () => process.exit(quiet ? 1 : 0));
	});
	machine.programs.set('/usr/bin/systemctl', (process) => {
		const [verb, unit] = process.argv.slice(1).filter((arg) => !arg.startsWith('--'));
		process.after(20, () => {
			if (verb === 'stop') {
				machine.log('programme', 'Quiet hours begin');
				machine.systemd.stop(unit!);
				machine.setAudible('quiet', 'quiet hours', null);
			} else if (verb === 'start') {
				machine.log('programme', 'Quiet hours end');
				machine.systemd.start(unit!);
			}
			process.exit(0);
		});
	});
	machine.on('userspace', () => {
		playing = null;
		if (!machine.disk.enabled.includes(PLAYER_UNIT)) {
			machine.log('programme', 'Nothing starts the player', '', 'bad');
			machine.setAudible('silence', 'nothing starts the player', null);
		}
	});
	machine.on('network-down', () => {
		const current = playing;
		if (current?.streams)
			current.after(STREAM_DRY_MS, () => {
				if (playing === current && !machine.networkUp) current.next();
			});
	});
	machine.on('fault', ({ name, on }) => {
		const current = playing;
		if (name === 'stream-refuses' && on && current?.streams)
			current.after(1000, () => playing === current && current.next());
	});
}

function play(process: Process, machine: Machine, tell: (now: Playing | null) => void): void {
	const options = new Map(
		readMpvConf(machine.disk.files.get('/etc/mpv/mpv.conf')?.text ?? '').map((option) => [option.name, option.value])
	);
	const path = process.argv.find((arg) => arg.startsWith('--playlist='))?.slice('--playlist='.length) ?? '';
	const list = readM3u(machine.disk.files.get(path)?.text ?? '');
	if (!list.ok) {
		machine.log('sources', list.faults[0]!.message, '', 'bad');
		machine.setAudible('silence', 'the playlist is empty', null);
		return process.after(PLAYER_START_MS, () => process.exit(1));
	}
	const entries = list.value.entries;
	const device = (options.get('audio-device') ?? 'alsa/default').replace(/^alsa\//, '');
	const gainDb = 60 * Math.log10(Number(options.get('volume') ?? 100) / 100);
	const forcedRateHz = options.has('audio-samplerate') ? Number(options.get('audio-samplerate')) : null;
	const endless = options.get('loop-playlist') === 'inf';
	const oneForEver = options.get('loop-file') === 'inf';
	let failures = 0;
	const said = new Set<string>();
	const once = (text: string, kind: 'info' | 'bad'): void => {
		if (said.has(text)) return;
		said.add(text);
		machine.log('sources', text, '', kind);
	};

	const begin = (index: number): void => {
		if (index >= entries.length) {
			if (failures >= entries.length) {
				machine.setAudible('silence', 'none of the sources can be played', null);
				return process.exit(2);
			}
			if (!endless) {
				machine.log('programme', 'The list is at its end');
				return process.exit(0);
			}
			once('The list begins again', 'info');
			return begin(0);
		}
		if (index === 0) failures = 0;
		const entry = entries[index]!;
		machine.offers.openMedia?.(entry.location, (found) =>
			process.after(0, () => (typeof found === 'string' ? failed(entry, index, found) : sound(entry, index, found)))
		);
	};
	const failed = (entry: PlaylistEntry, index: number, why: string): void => {
		failures++;
		once(`${entry.title ?? entry.location}: ${why}`, 'bad');
		process.after(100, () => begin(index + 1));
	};
	const sound = (entry: PlaylistEntry, index: number, media: PlayedMedia): void => {
		const title = entry.title ?? entry.location;
		once(`Begins: ${title}`, 'info');
		const opened = machine.offers.openSound?.(device, { ...media, title, gainDb, forcedRateHz }, () =>
			process.after(DEVICE_LOST_MS, () => process.exit(2))
		);
		if (opened === undefined || typeof opened === 'string') {
			machine.log('sound', `The player cannot open ${device}: ${opened ?? 'no sound'}`, '', 'bad');
			machine.setAudible('silence', opened ?? 'no sound', null);
			return process.after(DEVICE_LOST_MS, () => process.exit(2));
		}
		let current = true;
		const next = (): void => {
			if (!current) return;
			current = false;
			tell(null);
			opened.close();
			begin(index + 1);
		};
		tell({ streams: isStream(entry.location), next, after: process.after });
		process.onKill(() => {
			if (!current) return;
			current = false;
			tell(null);
			opened.close();
		});
		const alone = entries.length === 1 && endless;
		if (media.durationMs !== null && !oneForEver && !alone) process.after(media.durationMs, next);
	};
	process.after(PLAYER_START_MS, () => begin(0));
}
