import { linesOf } from '../../formats/lines';
import type { Machine } from '../../engines/machine';
import { kernelWords } from '../../formats/boot/kernelArgs';
import { OVERLAY_CONF } from './files';

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
export function rehearseCard(machine: Machine): void {
	let userspaceAtMs: number | null = null;
	let torn = false;
	const told = (word: string): boolean => kernelLine(machine).includes(word);
	const isReadOnly = machine.disk.files.has(OVERLAY_CONF);
	const keepsLog = /^Storage=persistent$/m.test(
		machine.disk.files.get('/etc/systemd/journald.conf.d/yphos.conf')?.text ?? ''
	);

	machine.on('powered', () => {
		const { firmwareMs, kernelMs } = machine.bench.board;
		machine.after(firmwareMs, () => machine.log('card', 'Firmware done, kernel starts'));
		machine.after(firmwareMs + kernelMs, () => {
			if (torn && told('fsck.mode=skip')) {
				machine.log(
					'card',
					'The card is torn and nothing mends it: the start stops and waits for a keyboard',
					'',
					'bad'
				);
				return machine.setAudible('silence', 'the card is torn, and nothing mends it', null);
			}
			if (torn) machine.log('card', 'The card was torn by the cut and is being mended', '', 'bad');
			machine.after(torn ? MEND_MS : 0, () => {
				torn = false;
				userspaceAtMs = machine.clock.nowMs;
				machine.log('card', isReadOnly ? 'Card mounted read-only, services begin' : 'Card mounted, services begin');
				machine.emit('userspace');
				machine.systemd.boot();
			});
		});
	});
	machine.on('mains-off', () => {
		if (machine.activeFaults.has('power-cut') && userspaceAtMs !== null && !isReadOnly)
			torn ||= isWriting(machine.clock.nowMs - userspaceAtMs, keepsLog);
		userspaceAtMs = null;
	});
}

/** Whether a write is going on so long after the services began. */
export function isWriting(sinceMs: number, keepsLog: boolean): boolean {
	const { everyMs, lastMs } = sinceMs < 60_000 ? FIRST_MINUTE : keepsLog ? KEPT_LOG : QUIET;
	return sinceMs % everyMs < lastMs;
}

const kernelLine = (machine: Machine): string[] =>
	kernelWords(
		machine.card.get('boot/cmdline.txt')?.text ??
			linesOf(machine.card.get('boot/extlinux/extlinux.conf')?.text ?? '')
				.map((line) => line.trim())
				.find((line) => /^append\s/i.test(line))
				?.slice('append'.length) ??
			''
	);
