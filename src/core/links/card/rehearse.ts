import { tellerFor, type Machine } from '../../engines/machine';
import { kernelLineOf } from '../../formats/boot/kernelLine';
import { readUnit } from '../../formats/systemd/unit';
import { LOG_DROP_IN, OVERLAY_CONF, WATCHDOG_DROP_IN } from './files';
import { CARD_WORDS } from './words';

/** Mending a torn file system at the start. Typical of a small card. */
const MEND_MS = 6000;

/** How often something is written to the root, and for how long each time; busier in the first minute. Typical. */
interface Writes {
	readonly everyMs: number;
	readonly lastMs: number;
}
const FIRST_MINUTE: Writes = { everyMs: 1700, lastMs: 220 };
const KEPT_LOG: Writes = { everyMs: 5000, lastMs: 300 };
const QUIET: Writes = { everyMs: 30_000, lastMs: 120 };

/**
 * Firmware, kernel and the hand-over to services, at the pace of the bench's board. A cut that falls into a write tears the card;
 * whether that is mended, is fatal, or cannot happen at all, the card's files say.
 */
export default function rehearseCard(machine: Machine): void {
	const tell = tellerFor(machine, 'card', CARD_WORDS);
	let userspaceAtMs: number | null = null;
	let torn = false;
	const told = (word: string): boolean => kernelLine(machine).includes(word);
	const isReadOnly = (): boolean => hasLayer(machine);
	const keepsLog = (): boolean => dropIn(machine, LOG_DROP_IN, 'Journal', 'Storage') !== 'volatile';
	const { freeBytes } = machine.disk;
	if (machine.bench.card && freeBytes === Infinity) machine.disk.freeBytes = machine.bench.card.roomBytes;

	machine.on('powered', () => {
		const { firmwareMs, kernelMs } = machine.bench.board;
		machine.after(firmwareMs, () => tell.event('kernel-starts', 'info'));
		machine.after(firmwareMs + kernelMs, () => {
			if (torn && told('fsck.mode=skip')) {
				tell.event('stops-torn', 'bad');
				machine.emit('player-fails', tell.said('torn-unmended'));
				return tell.state('card', 'torn', 'torn-unmended');
			}
			if (torn) {
				tell.event('mends', 'bad');
				tell.state('card', 'torn', 'was-torn');
			}
			machine.after(torn ? MEND_MS : 0, () => {
				torn = false;
				userspaceAtMs = machine.clock.nowMs;
				machine.userspaceAtMs = userspaceAtMs;
				tell.event(isReadOnly() ? 'mounted-read-only' : 'mounted', 'info');
				tell.state('card', 'whole', 'whole');
				tell.mark('card', 'kept', describeKeeping(machine));
				machine.emit('userspace');
				machine.systemd.boot();
			});
		});
	});
	machine.on('mains-off', ({ abrupt }) => {
		if (abrupt && userspaceAtMs !== null && !isReadOnly()) {
			torn ||= isWriting(machine.clock.nowMs - userspaceAtMs, keepsLog());
			const paths = machine.disk.tear();
			if (paths.length) tell.event('files-torn', 'bad', { paths });
		}
		machine.forgetsTime = hasLayer(machine);
		userspaceAtMs = null;
	});
	let kept = 0;
	machine.on('fault', ({ name, on }) => {
		if (name !== 'card-full') return;
		if (on) {
			kept = machine.disk.freeBytes;
			machine.disk.freeBytes = 0;
		} else machine.disk.freeBytes += kept;
		tell.event(on ? 'full' : 'room-again', 'fault');
		if (machine.powered) tell.state('card', on ? 'full' : 'whole', on ? 'is-full' : 'whole');
	});
}

/** Whether a write is going on so long after the services began. */
export function isWriting(sinceMs: number, keepsLog: boolean): boolean {
	const { everyMs, lastMs } = sinceMs < 60_000 ? FIRST_MINUTE : keepsLog ? KEPT_LOG : QUIET;
	return sinceMs % everyMs < lastMs;
}

const kernelLine = (machine: Machine): string[] => kernelLineOf((path) => machine.card.get(path)?.text);

/** A value in a drop-in of one section; undefined: not said, or under another head. */
const dropIn = (machine: Machine, path: string, section: string, key: string): string | undefined =>
	readUnit(machine.disk.get(path)?.text ?? '').findLast((entry) => entry.section === section && entry.key === key)
		?.value;

/** The package makes a layer where its file says so and the tools for it are in the initial RAM disk. Source: overlayroot's own overlayroot.conf. */
function hasLayer(machine: Machine): boolean {
	const { disk } = machine;
	const isInstalled = (name: string): boolean => disk.packages.get(name) === 'installed';
	return (
		isInstalled('overlayroot') &&
		isInstalled('busybox') &&
		/^overlayroot="?(?:tmpfs|device)[:"]/m.test(disk.get(OVERLAY_CONF)?.text ?? '')
	);
}

/** What the files say of writing and hanging, in words. What they say besides is told as not rehearsed. */
function describeKeeping(machine: Machine): string {
	for (const [path, section, known] of [
		[LOG_DROP_IN, 'Journal', ['Storage', 'RuntimeMaxUse', 'SystemMaxUse']],
		[WATCHDOG_DROP_IN, 'Manager', ['RuntimeWatchdogSec', 'RebootWatchdogSec']]
	] as const)
		for (const entry of readUnit(machine.disk.get(path)?.text ?? ''))
			if (entry.section !== section || !(known as readonly string[]).includes(entry.key))
				machine.unknown(`${entry.key}= in [${entry.section}] of ${path}`);
	const isVolatile = dropIn(machine, LOG_DROP_IN, 'Journal', 'Storage') === 'volatile';
	const most = dropIn(machine, LOG_DROP_IN, 'Journal', isVolatile ? 'RuntimeMaxUse' : 'SystemMaxUse');
	const hangs = dropIn(machine, WATCHDOG_DROP_IN, 'Manager', 'RuntimeWatchdogSec');
	const restart = dropIn(machine, WATCHDOG_DROP_IN, 'Manager', 'RebootWatchdogSec');
	return [
		hasLayer(machine) ? 'root read-only' : 'root written to',
		`log ${isVolatile ? 'in memory' : 'kept'}${most ? `, ${most} at most` : ''}`,
		...(hangs ? [`restarts after hanging for ${hangs}${restart ? `, ${restart} at a restart` : ''}`] : [])
	].join('; ');
}
