import { emptyCard, type Found, type FoundCard } from './found';
import type { Section } from './sections';

/** A reader marks the lines it understood in `used` and puts what they say into `found`. */
export type Reader = (section: Section, found: Found, used: Set<number>) => void;

/** `aplay -l`, in whichever language: "card 0: Id [Name], device 0: Name [Name]". */
export const readAplayList: Reader = ({ lines }, found, used) => {
	lines.forEach((line, n) => {
		const m = /^\S+ (\d+): (\S+) \[(.*)\], \S+ (\d+): (.*) \[(.*)\]$/.exec(line);
		if (m) {
			const card = found.card(Number(m[1]));
			card.id = m[2]!;
			card.name ??= m[3]!;
			card.devices.set(Number(m[4]), m[6] || m[5]!);
			found.understood.add('list of playback devices');
			used.add(n);
		} else if (/^\*{4} .* \*{4}$/.test(line) || /^ {2}\S+(?: #\d+)?: /.test(line)) used.add(n);
	});
};

/** `aplay -L`: the ways in to each card. */
export const readAplayNames: Reader = ({ heading, lines }, found, used) => {
	let inList = heading.startsWith('aplay -L');
	lines.forEach((line, n) => {
		const m = /^([a-z]\w*):CARD=([^,\s]+)(?:,DEV=\d+)?$/.exec(line);
		if (m) {
			inList = true;
			const doors = found.doors.get(m[2]!) ?? new Set();
			found.doors.set(m[2]!, doors.add(m[1]!));
			found.understood.add('names of sound devices');
			used.add(n);
		} else if (inList && (/^ {4}\S/.test(line) || /^[a-z]\w*$/.test(line))) used.add(n);
	});
};

/** /proc/asound/cards: " 0 [Id   ]: Driver - Name". */
export const readCards: Reader = ({ lines }, found, used) => {
	let last: FoundCard | null = null;
	lines.forEach((line, n) => {
		const m = /^\s*(\d+) \[(\S+)\s*\]: (.*?) - (.*)$/.exec(line);
		const detail = /^ {10,}(\S.*)$/.exec(line);
		if (m) {
			last = found.card(Number(m[1]));
			last.id = m[2]!;
			last.name = m[4]!;
			found.understood.add('list of sound cards');
			used.add(n);
		} else if (last && detail) {
			last.usbPlace = / at (usb-[^,\s]+)/.exec(line)?.[1] ?? null;
			used.add(n);
		}
	});
};

/** /proc/asound/cardN/streamM: what a USB device takes, one alternate setting after another. */
export const readStream: Reader = ({ heading, lines }, found, used) => {
	let card: FoundCard | null = null;
	let way = '';
	let format = '';
	let channels = 0;
	lines.forEach((line, n) => {
		const head = /^(.+) at (usb-[^,\s]+), (full|high|super\S*) speed : (.*)$/.exec(line);
		if (head) {
			const index = /\/card(\d+)\/stream/.exec(heading)?.[1];
			card = index === undefined ? emptyCard() : found.card(Number(index));
			if (index === undefined) found.loose.push(card);
			card.usbPlace ??= head[2]!;
			card.usbSpeed = head[3]!.startsWith('super') ? 'super' : (head[3] as 'full' | 'high');
			card.name ??= head[1]!;
			found.understood.add('abilities of a USB device');
			used.add(n);
			return;
		}
		if (!card) return;
		const field = /^ *(Format|Channels|Rates): (.*)$/.exec(line);
		if (/^(Playback|Capture):$/.test(line)) way = line.slice(0, -1);
		else if (field?.[1] === 'Format') format = field[2]!.trim().split(' ').at(-1)!;
		else if (field?.[1] === 'Channels') channels = Number(field[2]);
		else if (field && way === 'Playback') card.settings.push({ format, channels, ratesHz: readRates(field[2]!) });
		else if (line !== '' && !/^ +\S/.test(line)) return;
		used.add(n);
	});
};

/** The rates one meets in practice, for devices that take any rate of a range. */
const USUAL_RATES_HZ = [8000, 11025, 16000, 22050, 32000, 44100, 48000, 88200, 96000, 176400, 192000, 352800, 384000];

/** "44100, 48000" or "44100 - 96000 (continuous)". */
function readRates(text: string): number[] {
	const range = /^(\d+) - (\d+) \(continuous\)/.exec(text);
	if (range) return USUAL_RATES_HZ.filter((rate) => rate >= Number(range[1]) && rate <= Number(range[2]));
	return [...text.matchAll(/\d+/g)].map((m) => Number(m[0])).filter((rate) => rate >= 4000);
}

/** `amixer`: volume controls with the level at which they stand. */
export const readMixers: Reader = ({ heading, lines }, found, used) => {
	let mixer: FoundCard['mixers'][number] | null = null;
	let name = '';
	const index = Number(/-c\s*(\d+)/.exec(heading)?.[1] ?? 0);
	lines.forEach((line, n) => {
		const head = /^Simple mixer control '(.*)',(\d+)$/.exec(line);
		if (head) {
			name = head[2] === '0' ? head[1]! : `${head[1]},${head[2]}`;
			mixer = null;
			found.understood.add('volume controls');
			used.add(n);
		} else if (name && /^ {2}\S/.test(line)) {
			if (/^ {2}Capabilities:.*\bp?volume\b/.test(line))
				found.card(index).mixers.push((mixer = { name, lowestDb: null, nowDb: null }));
			const level = /Playback \d+ \[\d+%\] \[(-?[\d.]+)dB\]/.exec(line)?.[1];
			if (mixer && level !== undefined) mixer.nowDb ??= Number(level);
			used.add(n);
		}
	});
};

/** ELD: what a display says of its own sound. */
export const readEld: Reader = ({ heading, lines }, found, used) => {
	if (!lines.some((line) => /^monitor_present\s/.test(line))) return;
	const values = new Map(
		lines.map((line) => {
			const [key = ''] = line.split(/\s/, 1);
			return [key, line.slice(key.length).trim()] as const;
		})
	);
	const value = (key: string): string | null => values.get(key) || null;
	found.facts.displaySound.push({
		cardIndex: Number(/\/card(\d+)\//.exec(heading)?.[1] ?? -1),
		monitor: value('monitor_name'),
		present: value('monitor_present') === '1',
		formats: [...values].flatMap(([key, text]) =>
			/^sad\d+_coding_type$/.test(key) ? [text.replace(/^\[\w+\]/, '').trim()] : []
		)
	});
	found.understood.add('sound of a display');
	lines.forEach((line, n) => {
		if (/^(monitor|connection|eld|edid|manufacture|product|port|support|audio|speakers|sad)\w*\s/.test(line))
			used.add(n);
	});
};
