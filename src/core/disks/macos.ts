import { cutLine } from '../formats/lines';
import { readXml, type XmlElement } from '../formats/xml/tree';
import type { HostDisk, Volume } from './disk';

const UNITS = ['B', 'KB', 'MB', 'GB', 'TB'];

/** "31.9 GB" → bytes; diskutil counts in thousands. */
function bytesOf(text: string): number | null {
	const m = /^[*+]?(\d{1,9}(?:[.,]\d{1,9})?) ([KMGT]?B)(?![A-Za-z])/.exec(text.trim());
	return m ? Math.round(Number(m[1]!.replace(',', '.')) * 1000 ** UNITS.indexOf(m[2]!)) : null;
}

interface Draft {
	id: string;
	kind: string;
	sizeBytes: number | null;
	volumes: Volume[];
	/** Partitions of other disks in which this one, a container, lies. */
	stores: string[];
}

const whole = (id: string): string => /^disk\d+/.exec(id)?.[0] ?? id;

/** "   1:   Windows_FAT_32 bootfs   268.4 MB   disk4s1", in words: number, kind and name, size with unit, identifier. */
function rowOf(line: string): { number: string; label: string; size: string; id: string } | null {
	const words = line.trim().split(/\s+/);
	const id = words.at(-1) ?? '';
	const size = words.slice(-3, -1).join(' ');
	if (!/^\d{1,4}:$/.test(words[0]!) || words.length < 4 || !/^disk\d/.test(id) || bytesOf(size) === null) return null;
	return { number: words[0]!.slice(0, -1), label: words.slice(1, -3).join(' '), size, id };
}

/** `diskutil list`, as it is printed. Null when it is something else. */
export function readDiskutilList(text: string): HostDisk[] | null {
	const drafts: Draft[] = [];
	for (const raw of text.split('\n')) {
		const line = cutLine(raw).trim();
		const head = /^\/dev\/(disk\d+)(?: \(([^)]*)\))?:$/.exec(line);
		if (head) {
			drafts.push({ id: head[1]!, kind: head[2] ?? '', sizeBytes: null, volumes: [], stores: [] });
			continue;
		}
		const draft = drafts.at(-1);
		if (!draft) continue;
		const stores = line.indexOf('Physical Store');
		if (stores >= 0) draft.stores.push(...(line.slice(stores).match(/\bdisk\d+s\d+/g) ?? []));
		const row = rowOf(line);
		if (!row) continue;
		if (row.number === '0') draft.sizeBytes = bytesOf(row.size);
		else
			draft.volumes.push({
				id: row.id,
				name: row.label,
				sizeBytes: bytesOf(row.size),
				fileSystem: row.label.split(' ')[0]!,
				mount: ''
			});
	}
	return drafts.length ? finish(drafts) : null;
}

/** Containers hold volumes, real disks hold containers: what runs the computer is seen in the container only. */
function finish(drafts: readonly Draft[]): HostDisk[] {
	const isContainer = (draft: Draft): boolean => /synthesi[sz]ed/.test(draft.kind) || draft.stores.length > 0;
	const systemStores = new Set(
		drafts
			.filter((draft) => isContainer(draft) && draft.volumes.some(isSystemVolume))
			.flatMap(({ stores }) => stores.map(whole))
	);
	// Without a disk that runs the computer, part of the listing is missing, and with it what is in use.
	const inUse = (draft: Draft): boolean =>
		systemStores.has(draft.id) ||
		draft.volumes.some(({ name, mount }) => /^Apple_(?:APFS|CoreStorage|HFS|Boot)/.test(name) || isSystemMount(mount));
	const showsSystem = drafts.some(inUse);
	return drafts
		.filter((draft) => !isContainer(draft) && !/disk image/.test(draft.kind))
		.map((draft): HostDisk => ({
			system: 'macos',
			id: draft.id,
			model: '',
			serial: '',
			sizeBytes: draft.sizeBytes,
			bus: '',
			removable: null,
			internal: draft.kind === '' ? null : /internal/.test(draft.kind),
			readOnly: null,
			inUse: inUse(draft) ? true : showsSystem ? false : null,
			volumes: draft.volumes
		}));
}

const isSystemMount = (mount: string): boolean => mount !== '' && !/^\/Volumes\//.test(mount);
const isSystemVolume = ({ name, mount }: Volume): boolean =>
	isSystemMount(mount) || /\b(?:Macintosh HD|Preboot|Recovery|VM|Update)\b/.test(name);

const list = (value: unknown): Record<string, unknown>[] =>
	Array.isArray(value) ? value.filter((item) => typeof item === 'object' && item !== null && !Array.isArray(item)) : [];
const str = (value: unknown): string => (typeof value === 'string' ? value : '');

/** `diskutil list -plist`, with prompts around it. Null when it is something else. */
export function readDiskutilPlist(text: string): HostDisk[] | null {
	const from = text.indexOf('<plist');
	const to = text.indexOf('</plist>', from);
	if (from < 0 || to < 0) return null;
	// The document type that stands before it is Apple's own and is not needed.
	const xml = readXml(text.slice(from, to + '</plist>'.length));
	const root = xml.ok && xml.value.children[0] ? plistValue(xml.value.children[0]) : null;
	const disks = list((root as Record<string, unknown> | null)?.AllDisksAndPartitions);
	if (disks.length === 0) return null;
	return finish(
		disks.map((disk): Draft => {
			const parts = [...list(disk.Partitions), ...list(disk.APFSVolumes)];
			const stores = list(disk.APFSPhysicalStores).map((store) => str(store.DeviceIdentifier));
			return {
				id: str(disk.DeviceIdentifier),
				kind: stores.length
					? 'synthesized'
					: disk.OSInternal === true
						? 'internal, physical'
						: disk.OSInternal === false
							? 'external, physical'
							: '',
				sizeBytes: Number.isSafeInteger(disk.Size) ? (disk.Size as number) : null,
				stores,
				volumes: parts.map((part) => ({
					id: str(part.DeviceIdentifier),
					name: [str(part.Content), str(part.VolumeName)].filter(Boolean).join(' '),
					sizeBytes: Number.isSafeInteger(part.Size) ? (part.Size as number) : null,
					fileSystem: str(part.Content),
					mount: str(part.MountPoint)
				}))
			};
		})
	);
}

/** Apple's property lists: dictionaries, lists, texts, whole numbers, truth. Source: plist(5). */
function plistValue({ name, children, text }: XmlElement): unknown {
	switch (name) {
		case 'dict':
			return Object.fromEntries(
				children.flatMap((child, n) =>
					child.name === 'key' && children[n + 1] && child.text !== '__proto__'
						? [[child.text, plistValue(children[n + 1]!)]]
						: []
				)
			);
		case 'array':
			return children.map(plistValue);
		case 'integer':
		case 'real':
			return Number(text);
		case 'true':
			return true;
		case 'false':
			return false;
		default:
			return text;
	}
}

const IDENTIFIER = 'Device Identifier:';

/** "   Key:   value", line by line. */
function fieldsOf(block: string): Map<string, string> {
	return new Map(
		block.split('\n').map((raw) => {
			const line = cutLine(raw);
			const colon = line.indexOf(':');
			return [line.slice(0, Math.max(0, colon)).trim(), line.slice(colon + 1).trim()] as const;
		})
	);
}

/** `diskutil info diskN`, one or several after each other. Null when it is something else. */
export function readDiskutilInfo(text: string): HostDisk[] | null {
	const disks = text
		.split(IDENTIFIER)
		.slice(1)
		.flatMap((block): HostDisk[] => {
			const fields = fieldsOf(`${IDENTIFIER}${block}`);
			const field = (name: string): string => fields.get(name) ?? '';
			const id = field('Device Identifier');
			if (field('Whole') === 'No' || whole(id) !== id) return [];
			const size = field('Disk Size') || field('Total Size');
			const exact = /\((\d{1,18}) Bytes\)/.exec(size);
			return [
				{
					system: 'macos',
					id,
					model: field('Device / Media Name'),
					serial: '',
					sizeBytes: exact && Number.isSafeInteger(Number(exact[1])) ? Number(exact[1]) : bytesOf(size),
					bus: field('Protocol').toLowerCase(),
					removable: field('Removable Media') === '' ? null : !/^Fixed/.test(field('Removable Media')),
					internal: field('Device Location') === '' ? null : field('Device Location') === 'Internal',
					readOnly: field('Media Read-Only') === '' ? null : field('Media Read-Only') === 'Yes',
					// What lies on its partitions stands in the list of disks only.
					inUse: isSystemMount(field('Mount Point')) || /^Yes/.test(field('Virtual')) ? true : null,
					volumes: []
				}
			];
		});
	return disks.length ? disks : null;
}
