import { shellWord } from '../../formats/shell/quote';
import type { HostDisk } from '../disk';
import {
	sameNoise,
	shellPath,
	unpackByHand,
	unpacked,
	upTo,
	WIPES,
	withoutEnding,
	type DiskCommand,
	type ImageFile
} from './command';

/** The raw device: past the cache, in whole blocks, which a pipe does not give by itself. Source: dd(1), obs. */
const raw = ({ id }: HostDisk): string => shellWord(`/dev/r${id}`);
const device = ({ id }: HostDisk): string => shellWord(`/dev/${id}`);
const letGo = (disk: HostDisk): DiskCommand => ({
	what: 'Let go of what is open on it, without ejecting',
	command: `diskutil unmountDisk ${device(disk)}`
});

/** What macOS unpacks by itself; for the others there is no program. */
const UNPACKED_HERE: readonly ImageFile['form'][] = ['raw', 'gzip', 'zip'];

/** Unmount, write, flush, read back, eject. Source: diskutil(8), dd(1) of macOS. */
export function writeOnMacos(disk: HostDisk, packed: ImageFile): DiskCommand[] {
	const mustUnpack = !UNPACKED_HERE.includes(packed.form);
	const image: ImageFile = mustUnpack ? { ...packed, form: 'raw', path: withoutEnding(packed.path) } : packed;
	const isRaw = image.form === 'raw';
	return [
		...(mustUnpack ? [unpackByHand(packed)] : []),
		letGo(disk),
		{
			what: 'Write, past the cache; Ctrl T shows how far it is',
			command: isRaw
				? `sudo dd if=${shellPath(image.path)} of=${raw(disk)} bs=4m`
				: `${unpacked(image)}sudo dd of=${raw(disk)} obs=4m`,
			note: WIPES
		},
		{ what: 'Flush', command: 'sync' },
		{
			what: 'Read back and compare',
			command: `${unpacked(image)}sudo cmp ${upTo(image.rawBytes)}${isRaw ? shellPath(image.path) : '-'} ${raw(disk)} && echo the same`
		},
		{ what: 'Eject', command: `diskutil eject ${device(disk)}` }
	];
}

/** Fills the disk with noise and reads it back: `bytes` as the card claims. */
export const proveOnMacos = (disk: HostDisk, bytes: number): DiskCommand[] => [
	letGo(disk),
	{
		what: 'Fill it to its last byte; Ctrl T shows how far it is',
		command: `${sameNoise(bytes)} | sudo dd of=${raw(disk)} obs=4m`,
		note: WIPES
	},
	{ what: 'Flush', command: 'sync' },
	{
		what: 'Read all of it back',
		command: `${sameNoise(bytes)} | sudo cmp - ${raw(disk)} && echo the whole size is there`
	}
];
