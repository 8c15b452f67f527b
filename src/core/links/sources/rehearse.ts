import { readFlac } from '../../formats/wav/flac';
import { measureWav, readWav } from '../../formats/wav/wav';
import { pictureFacts } from './pictureFacts';
import { isStream } from '../../formats/playlist/playlist';
import type { Media, PlayedMedia } from '../../parts/media';
import { OTHERS_READ, tellerFor, type Fault, type Machine } from '../../engines/machine';
import { rehearseStores } from './rehearseStores';
import { SOURCES_WORDS } from './words';

/** To open a file; to connect to a stream and fill the first buffer; to give up on one that refuses. Typical. */
export const FILE_MS = 60;
export const STREAM_MS = 900;
const REFUSED_MS = 400;

/** What can befall a stream while a rehearsal runs. */
export const SOURCES_FAULTS = {
	'stream-refuses': { label: 'Stream refuses', lastsMs: 60_000 },
	'stream-pauses': { label: 'Stream stands still', lastsMs: 3_000 },
	'server-asleep': { label: 'File server asleep', lastsMs: 90_000 },
	'server-unnamed': { label: 'File server\u2019s name not found', lastsMs: 60_000 },
	'share-password': { label: 'Share refuses the password', lastsMs: 60_000 },
	'stick-out': { label: 'Stick pulled out', lastsMs: 30_000 }
} as const satisfies Record<string, Fault>;

/** Finds what a playlist entry leads to: a file of the card set, one on the bench's disks, or the stand-in stream server. */
export function rehearseSources(machine: Machine): void {
	const tell = tellerFor(machine, 'sources', SOURCES_WORDS);
	const measured = new Map<string, PlayedMedia | string>();
	const mounts = rehearseStores(machine);
	machine.offers.openMedia = (location, done) => {
		if (isStream(location)) {
			const stream = machine.bench.streams.find((known) => known.url === location);
			if (!machine.online) return machine.after(REFUSED_MS, () => done('no network yet'));
			if (machine.activeFaults.has('stream-refuses') || stream?.state === 'refuses')
				return machine.after(REFUSED_MS, () => done('the stream server refuses'));
			if (!stream) return machine.after(REFUSED_MS, () => done('no stream server answers at this address'));
			const { media } = stream;
			return machine.after(STREAM_MS, () =>
				done(media ? { ...asPlayed(media), durationMs: null } : 'the stream holds nothing that can be played')
			);
		}
		const path = location.startsWith('/') ? location : `/opt/yphos/${location.replace(/^\.\//, '')}`;
		mounts.reach(path, (why) => {
			if (why !== null) return machine.after(FILE_MS, () => done(why));
			let found = measured.get(path);
			if (found === undefined) measured.set(path, (found = lookOnDisk(machine, path)));
			machine.after(FILE_MS, () => done(found!));
		});
	};
	machine.on('fault', ({ name, on }) => {
		if (name === 'stream-pauses') tell.event(on ? 'stands-still' : 'flows', 'fault');
		if (name === 'stream-refuses') tell.event(on ? 'refuses' : 'answers', 'fault');
	});
}

function lookOnDisk(machine: Machine, path: string): PlayedMedia | string {
	const file = machine.disk.get(path);
	// Media are read by the player's own user.
	if (file && (parseInt(file.mode, 8) & OTHERS_READ) === 0) return `its mode ${file.mode} keeps the player from it`;
	if (file?.bytes) return fromBytes(file.bytes) ?? 'the file is in no format that is known here';
	const known = machine.bench.media.find((media) => media.location === path);
	if (!known) return 'there is no such file';
	machine.assumed.add('the files that you copy yourself are there');
	return asPlayed(known);
}

function fromBytes(bytes: Uint8Array): PlayedMedia | null {
	const wav = readWav(bytes);
	if (wav.ok) return { codec: 'pcm', lossless: true, ...wav.value, level: measureWav(bytes, wav.value) };
	const flac = readFlac(bytes);
	if (flac.ok) return { codec: 'flac', lossless: true, ...flac.value, level: null };
	const facts = pictureFacts(bytes);
	return facts && { ...facts, level: null };
}

const asPlayed = (media: Media): PlayedMedia => ({ ...media, level: null });
