import { boundedText } from '../formats/lines';
import { mend } from '../plan/mend';
import { SAMPLE_BITS, type Playback, type SampleFormat } from '../parts/schema';
import { fault, ok, type Result } from '../basics/result';
import { readEdidHex, readJsonListings, readOneValue, readSystem } from './boardReaders';
import { noFacts, probeFactsSchema, type ProbeFacts, type SoundDevice } from '../parts/probeFacts';
import { Found, type FoundCard, type StreamSetting } from './found';
import { splitSections } from './sections';
import { readAplayList, readAplayNames, readCards, readEld, readMixers, readStream, type Reader } from './soundReaders';

/** A report that was read: facts, what was understood, what was not. */
export interface ProbeReport {
	readonly facts: ProbeFacts;
	/** What was understood, in words. */
	readonly understood: readonly string[];
	/** Lines that no reader knew, the first of them. */
	readonly notUnderstood: readonly string[];
	/** What was read and then left out, because it cannot be. */
	readonly leftOut: readonly string[];
}

const READERS: readonly Reader[] = [
	readOneValue,
	readEdidHex,
	readAplayList,
	readAplayNames,
	readCards,
	readStream,
	readMixers,
	readEld,
	readJsonListings,
	readSystem
];
const SHOWN_LINES = 20;
const MOST_CHARACTERS = 4_000_000;

/**
 * Reads a probe report, or any of its listings pasted alone, in any order, with prompts, colours and Windows line ends.
 * What cannot be, such as a rate of 4 MHz, is left out and said. Faults: `probe-nothing` when not a line of it is known, `text-long`.
 */
export function readProbe(text: string): Result<ProbeReport> {
	const bounded = boundedText(text, MOST_CHARACTERS);
	if (!bounded.ok) return bounded;
	const found = new Found();
	const left: string[] = [];
	for (const section of splitSections(text)) {
		const used = new Set<number>();
		for (const read of READERS) read(section, found, used);
		section.lines.forEach((line, n) => {
			if (line.trim() !== '' && !used.has(n)) left.push(line.trim());
		});
	}
	if (found.understood.size === 0)
		return fault(
			'probe-nothing',
			'Nothing in this text is known. Paste what probe.sh printed, or the answer to "aplay -l" or "cat /proc/asound/cards".'
		);
	joinLoose(found);
	found.facts.soundDevices = soundDevices(found);
	found.facts.temperaturesC = found.facts.temperaturesC.filter((t) => Number.isFinite(t.celsius));
	const fitting = mend(probeFactsSchema, found.facts, noFacts());
	return ok({
		facts: fitting?.value ?? noFacts(),
		understood: [...found.understood],
		notUnderstood: left.slice(0, SHOWN_LINES),
		leftOut: (fitting?.changed ?? []).map(({ where, why }) => `${where}: ${why}`).slice(0, SHOWN_LINES)
	});
}

/** A USB listing that named no card belongs to the card at the same socket, or to the only one there is. */
function joinLoose(found: Found): void {
	for (const loose of found.loose) {
		const cards = [...found.cards.values()];
		const home = cards.find((card) => card.usbPlace === loose.usbPlace) ?? (cards.length === 1 ? cards[0]! : null);
		if (!home) continue;
		home.settings.push(...loose.settings);
		home.usbSpeed ??= loose.usbSpeed;
	}
}

function soundDevices(found: Found): SoundDevice[] {
	return [...found.cards.entries()]
		.sort(([a], [b]) => a - b)
		.flatMap(([, card]) => {
			if (card.id === null) return [];
			const devices = card.devices.size ? [...card.devices] : [[0, card.name ?? card.id] as const];
			return devices.map(([deviceNumber, deviceName]) => ({
				cardId: card.id!,
				cardName: card.name ?? card.id!,
				deviceNumber,
				deviceName,
				usbSpeed: card.usbSpeed,
				playback: playbackOf(card),
				mixers: card.mixers,
				doors: [...(found.doors.get(card.id!) ?? [])]
			}));
		});
}

const isKnownFormat = (format: string): format is SampleFormat => format in SAMPLE_BITS;

function playbackOf(card: FoundCard): Playback | null {
	const known = card.settings.filter(
		(setting) => isKnownFormat(setting.format) && setting.ratesHz.length && setting.channels > 0
	);
	if (known.length === 0) return null;
	const all = <T>(pick: (setting: StreamSetting) => readonly T[]): T[] => [...new Set(known.flatMap(pick))];
	return {
		ratesHz: all((s) => s.ratesHz).sort((a, b) => a - b),
		formats: all((s) => [s.format as SampleFormat]),
		channels: all((s) => [s.channels]).sort((a, b) => a - b)
	};
}
