import { readFlac } from '../../formats/wav/flac';
import { measureWav, readWav } from '../../formats/wav/wav';
import { pictureFacts } from './lists/pictureFacts';
import { isStream } from '../../formats/playlist/playlist';
import type { Media, PlayedMedia } from '../../parts/media';
import { letsIn, OTHERS_READ, tellerFor, type Machine, type Process } from '../../engines/machine';
import { receivedAt } from './streams/receive';
import { rehearseStores, type Mounts } from './stores/rehearseStores';
import { FILE_MS, STREAM_MS } from './timing';
import { SOURCES_WORDS } from './words';

/** To give up on a stream that refuses. Typical. */
const REFUSED_MS = 400;

/** Finds what a playlist entry leads to: a file of the card set, one on the bench's disks, or the stand-in stream server. */
export default function rehearseSources(machine: Machine): void {
	const tell = tellerFor(machine, 'sources', SOURCES_WORDS);
	const measured = new Map<string, PlayedMedia | string>();
	const mounts = rehearseStores(machine);
	addLookers(machine, mounts);
	machine.offers.openMedia = (location, done) => {
		if (isStream(location)) {
			const stream = machine.bench.streams.find((known) => known.url === location);
			if (!machine.online) return machine.after(REFUSED_MS, () => done('no network yet'));
			if (machine.activeFaults.has('stream-refuses') || stream?.state === 'refuses')
				return machine.after(REFUSED_MS, () => done('the stream server refuses'));
			const port = receivedAt(location);
			const from = machine.bench.network.near[0] ?? '';
			if (port !== null && !letsIn(machine, { from, protocol: 'udp', port }))
				return machine.after(REFUSED_MS, () => done('nothing comes in at its port: the firewall keeps it out'));
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
			if (found === undefined) {
				found = lookOnDisk(machine, path);
				// A link may lead elsewhere the next time.
				if (!machine.disk.links.has(path)) measured.set(path, found);
			}
			machine.after(FILE_MS, () => done(found!));
		});
	};
	machine.on('fault', ({ name, on }) => {
		if (name === 'stream-pauses') tell.event(on ? 'stands-still' : 'flows', 'fault');
		if (name === 'stream-refuses') tell.event(on ? 'refuses' : 'answers', 'fault');
	});
}

/** What lies below a folder: on the endpoint's disk, and on shares and sticks as the bench has them. */
const filesBelow = (machine: Machine, folder: string): string[] => [
	...[...machine.disk.files.keys()].filter((path) => path.startsWith(`${folder}/`)),
	...machine.bench.media.map(({ location }) => location).filter((location) => location.startsWith(`${folder}/`))
];

/** Programs that look into folders and files wherever they lie. Source: ls(1), find(1), ffprobe(1). */
function addLookers(machine: Machine, { reach, covers }: Mounts): void {
	const within = (process: Process, folder: string, then: (paths: readonly string[]) => number): void =>
		reach(`${folder}/.`, (why) => {
			const paths = why === null ? filesBelow(machine, folder) : [];
			if (why === null && (paths.length > 0 || machine.disk.kind(folder) !== null || covers(`${folder}/.`)))
				return process.after(FILE_MS, () => process.exit(then(paths)));
			process.err(`${process.argv[0]}: '${folder}': ${why ?? 'No such file or directory'}\n`);
			process.after(FILE_MS, () => process.exit(1));
		});
	machine.programs.set('/usr/bin/ls', (process) => {
		const folder = process.argv.at(-1) ?? '/';
		within(process, folder, (paths) => {
			const names = new Set(paths.map((path) => path.slice(folder.length + 1).split('/')[0]!));
			process.out([...names].map((name) => `${name}\n`).join(''));
			return 0;
		});
	});
	machine.programs.set('/usr/bin/find', (process) => {
		const [, folder = '', ...rest] = process.argv;
		if (rest.join(' ') !== '-type f -printf %T@\\t%p\\n') {
			machine.unknown(`find ${process.argv.slice(1).join(' ')}`);
			return process.exit(1);
		}
		within(process, folder, (paths) => {
			if (paths.length > 1) machine.assumed.add('all files of a folder were changed at the same time');
			process.out(paths.map((path) => `0.0\t${path}\n`).join(''));
			return 0;
		});
	});
	machine.programs.set('/usr/bin/ffprobe', (process) => {
		const path = process.argv.at(-1) ?? '';
		const found = lookOnDisk(machine, path);
		if (typeof found === 'string') process.err(`${path}: ${found}\n`);
		else process.out(`${found.durationMs === null ? 'N/A' : (found.durationMs / 1000).toFixed(6)}\n`);
		process.after(FILE_MS, () => process.exit(typeof found === 'string' ? 1 : 0));
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
