import { XMLParser } from 'fast-xml-parser';
import type { HostDisk, Volume } from './disk';

/** "31.9 GB" → bytes; diskutil counts in thousands. */
function bytesOf(text: string): number | null {
	const m = /([\d.,]+)\s*(B|KB|MB|GB|TB)\b/.exec(text);
	if (!m) return null;
	const power = ['B', 'KB', 'MB', 'GB', 'TB'].indexOf(m[2]!);
	return Math.round(Number(m[1]!.replace(',', '.')) * 1000 ** power);
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

/** `diskutil list`, as it is printed. Null when it is something else. */
export function readDiskutilList(text: string): HostDisk[] | null {
	const drafts: Draft[] = [];
	for (const line of text.split('\n')) {
		const head = /^\/dev\/(disk\d+)(?: \(([^)]*)\))?:\s*$/.exec(line.trim());
		if (head) {
			drafts.push({ id: head[1]!, kind: head[2] ?? '', sizeBytes: null, volumes: [], stores: [] });
			continue;
		}
		const draft = drafts.at(-1);
		if (!draft) continue;
		const store = /Physical Stores? ((?:disk\d+s\d+(?:, )?)+)/.exec(line);
		if (store) draft.stores.push(...store[1]!.split(', '));
		const row = /^\s*(\d+):\s+(.*?)\s+([*+]?[\d.]+ [KMGT]?B)\s+(disk\d+(?:s\d+)*)\s*$/.exec(line);
		if (!row) continue;
		const [, number, label, size, id] = row as unknown as [string, string, string, string, string];
		if (number === '0') draft.sizeBytes = bytesOf(size);
		else
			draft.volumes.push({
				id,
				name: label.trim(),
				sizeBytes: bytesOf(size),
				fileSystem: label.trim().split(/\s+/)[0]!,
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
			holdsSystem:
				systemStores.has(draft.id) ||
				draft.volumes.some(
					({ name, mount }) => /^Apple_(?:APFS|CoreStorage|HFS|Boot)/.test(name) || isSystemMount(mount)
				),
			volumes: draft.volumes
		}));
}

const isSystemMount = (mount: string): boolean => mount !== '' && !/^\/Volumes\//.test(mount);
const isSystemVolume = ({ name, mount }: Volume): boolean =>
	isSystemMount(mount) || /\b(?:Macintosh HD|Preboot|Recovery|VM|Update)\b/.test(name);

const list = (value: unknown): Record<string, unknown>[] =>
	Array.isArray(value) ? (value as Record<string, unknown>[]) : [];
const str = (value: unknown): string => (typeof value === 'string' ? value : '');

/** `diskutil list -plist`. Null when it is something else. */
export function readDiskutilPlist(text: string): HostDisk[] | null {
	if (!/<plist/.test(text)) return null;
	const root = readPlist(text) as Record<string, unknown> | null;
	const disks = list(root?.AllDisksAndPartitions);
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
				sizeBytes: typeof disk.Size === 'number' ? disk.Size : null,
				stores,
				volumes: parts.map((part) => ({
					id: str(part.DeviceIdentifier),
					name: [str(part.Content), str(part.VolumeName)].filter(Boolean).join(' '),
					sizeBytes: typeof part.Size === 'number' ? part.Size : null,
					fileSystem: str(part.Content),
					mount: str(part.MountPoint)
				}))
			};
		})
	);
}

/** Apple's property lists: dictionaries, lists, texts, whole numbers, truth. Source: plist(5). */
function readPlist(text: string): unknown {
	type Node = Record<string, unknown>;
	let nodes: Node[];
	try {
		nodes = new XMLParser({ preserveOrder: true, ignoreAttributes: true, parseTagValue: false }).parse(text) as Node[];
	} catch {
		return null;
	}
	const value = (node: Node): unknown => {
		const tag = Object.keys(node).find((key) => key !== ':@')!;
		const children = node[tag] as Node[];
		const inner = (): string => (children[0] ? String((children[0] as Node)['#text'] ?? '') : '');
		switch (tag) {
			case 'dict': {
				const out: Record<string, unknown> = {};
				for (let n = 0; n + 1 < children.length; n += 2)
					out[String(((children[n]!.key as Node[] | undefined)?.[0] as Node | undefined)?.['#text'] ?? '')] = value(
						children[n + 1]!
					);
				return out;
			}
			case 'array':
				return children.map(value);
			case 'integer':
			case 'real':
				return Number(inner());
			case 'true':
				return true;
			case 'false':
				return false;
			default:
				return inner();
		}
	};
	const plist = nodes.find((node) => 'plist' in node)?.plist as Node[] | undefined;
	return plist?.[0] ? value(plist[0]) : null;
}

/** `diskutil info diskN`, one or several after each other. Null when it is something else. */
export function readDiskutilInfo(text: string): HostDisk[] | null {
	if (!/Device Identifier:/.test(text)) return null;
	const blocks = text.split(/(?=^\s*Device Identifier:)/m).filter((block) => /Device Identifier:/.test(block));
	const disks = blocks.flatMap((block): HostDisk[] => {
		const field = (name: string): string => new RegExp(`^\\s*${name}:\\s*(.*?)\\s*$`, 'm').exec(block)?.[1] ?? '';
		const id = field('Device Identifier');
		if (field('Whole') === 'No' || whole(id) !== id) return [];
		const exact = /\((\d+) Bytes\)/.exec(field('Disk Size') || field('Total Size'));
		const mount = field('Mount Point');
		return [
			{
				system: 'macos',
				id,
				model: field('Device / Media Name'),
				serial: '',
				sizeBytes: exact ? Number(exact[1]) : bytesOf(field('Disk Size')),
				bus: field('Protocol').toLowerCase(),
				removable: field('Removable Media') === '' ? null : !/^Fixed/.test(field('Removable Media')),
				internal: field('Device Location') === '' ? null : field('Device Location') === 'Internal',
				readOnly: field('Media Read-Only') === '' ? null : field('Media Read-Only') === 'Yes',
				holdsSystem: isSystemMount(mount) || /^Yes/.test(field('Virtual')),
				volumes: []
			}
		];
	});
	return disks.length ? disks : null;
}
