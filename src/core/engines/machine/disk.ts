import { cardBytes } from '../../files/cardBytes';
import type { SeedUser } from '../../formats/seed/userData';
import type { CardFile } from '../../link/file';
import { parseInstall } from './install';
import { fromStream } from './programs/stream';

/** A file of the endpoint: text or bytes, with mode and owner. */
export interface DiskFile {
	readonly text: string;
	readonly bytes: Uint8Array | null;
	/** "0755". */
	readonly mode: string;
	readonly owner: string;
	/** It belongs to a package, so that nothing of it is known but that it is there. */
	readonly stub?: true;
}

/** Whether anybody may run it. */
export const isExecutable = ({ mode }: DiskFile): boolean => (parseInt(mode, 8) & 0o111) !== 0;

/** Files as they stand on a card: by path below the card's root. */
export type CardTree = ReadonlyMap<string, { readonly text: string; readonly bytes: Uint8Array | null }>;

/** A card set as the tree that lies on the card. */
export const cardTree = (files: readonly CardFile[]): CardTree =>
	new Map(
		files.map((file) => [
			file.path,
			'lines' in file
				? { text: file.lines.map((line) => `${line.text}\n`).join(''), bytes: null }
				: { text: '', bytes: cardBytes(file) }
		])
	);

/** What the kernel shows as files: looked up each time, and written to at once. */
export interface Mount {
	readonly prefix: string;
	read(path: string): string | null;
	list(path: string): readonly string[];
	write?(path: string, text: string): string | null;
	remove?(path: string): boolean;
}

/** What a program says when there is no room. Source: strerror(3), ENOSPC. */
export const NO_SPACE = 'No space left on device';
/** How often a journal is written out unless told otherwise. Source: ext4(5), commit=nrsec. */
const COMMIT_MS = 5000;
const sizeOf = (file: { readonly text: string; readonly bytes: Uint8Array | null } | undefined): number =>
	file?.bytes?.length ?? file?.text.length ?? 0;

/** Merged since Debian 12: what stands in /bin stands in /usr/bin. */
export const merged = (path: string): string =>
	path.startsWith('/bin/') || path.startsWith('/sbin/') || path.startsWith('/lib/') ? `/usr${path}` : path;
/** Whether a path is another one, or lies below it. */
export const isBelow = (path: string, folder: string): boolean =>
	path.startsWith(folder) && (path.length === folder.length || path[folder.length] === '/');
const UNIT_FOLDERS = ['/etc/systemd/system/', '/usr/lib/systemd/system/'];

/** The endpoint's own disk: files with their modes and owners, folders, what is installed, what is enabled. */
export class Disk {
	readonly files = new Map<string, DiskFile>();
	readonly folders = new Set<string>(['/']);
	/** Folders that are not the administrator's: "keeper:root". */
	readonly folderOwners = new Map<string, string>();
	/** By name, as dpkg says: installed, or left half-way. */
	readonly packages = new Map<string, 'installed' | 'half-configured'>();
	/** Who may log in, by name. */
	readonly accounts = new Map<string, SeedUser>();
	readonly mounts: Mount[] = [];
	/** Symbolic links to folders: where each leads, a path from the root on. */
	readonly links = new Map<string, string>();
	/** Modes of folders, where somebody has set one. */
	readonly folderModes = new Map<string, string>();
	/** What may still be written, bytes. */
	freeBytes = Infinity;
	/** Written, and not yet on the card for good: since when, by path. */
	readonly #unsettled = new Map<string, number>();
	/** Names in each folder; null: nobody has looked into one yet. */
	#inside: Map<string, Set<string>> | null = null;
	now: () => number = () => 0;
	onChange: () => void = () => {};

	/** Shares what nobody changes: contents are replaced, never edited. What the kernel shows is its own machine's. */
	copy(): Disk {
		const copy = new Disk();
		for (const [path, file] of this.files) copy.files.set(path, file);
		for (const folder of this.folders) copy.folders.add(folder);
		for (const [folder, owner] of this.folderOwners) copy.folderOwners.set(folder, owner);
		for (const [folder, mode] of this.folderModes) copy.folderModes.set(folder, mode);
		for (const [path, to] of this.links) copy.links.set(path, to);
		for (const [name, state] of this.packages) copy.packages.set(name, state);
		for (const [name, account] of this.accounts) copy.accounts.set(name, account);
		copy.freeBytes = this.freeBytes;
		return copy;
	}

	/** Where a path really leads: through links to folders. Source: path_resolution(7); a chain of more than 40 leads nowhere. */
	#at(path: string): string {
		let at = merged(path);
		if (this.links.size === 0) return at;
		for (let hops = 0; hops < 40; hops++) {
			const followed = this.#follow(at);
			if (followed === null) return at;
			at = followed;
		}
		return '';
	}
	#follow(at: string): string | null {
		for (const [link, to] of this.links) if (isBelow(at, link)) return to + at.slice(link.length);
		return null;
	}

	/** A symbolic link to a folder, in the place of whatever link was there. */
	link(path: string, to: string): void {
		const at = merged(path);
		this.links.set(at, to.startsWith('/') ? to : `${at.slice(0, at.lastIndexOf('/'))}/${to}`);
		this.#comes(at);
		this.makeFolder(at.slice(0, at.lastIndexOf('/')) || '/');
		this.onChange();
	}

	get(path: string): DiskFile | undefined {
		return this.files.get(this.#at(path));
	}

	put(path: string, file: Omit<DiskFile, 'mode' | 'owner'> & Partial<DiskFile>): void {
		const at = this.#at(path);
		this.files.set(at, { mode: '0644', owner: 'root:root', ...file });
		this.#comes(at);
		this.makeFolder(at.slice(0, at.lastIndexOf('/')) || '/');
		this.onChange();
	}

	/** As a program writes: against the room that is left. Gives why it could not, as the program says it; null: done. */
	tryPut(path: string, file: Omit<DiskFile, 'mode' | 'owner'> & Partial<DiskFile>): string | null {
		const at = this.#at(path);
		const more = sizeOf(file) - sizeOf(this.files.get(at));
		if (more > this.freeBytes) return NO_SPACE;
		this.freeBytes -= more;
		this.put(path, file);
		this.#unsettled.set(at, this.now());
		return null;
	}

	/** A file takes the place of another at once, and its contents are written out first. Source: ext4(5), auto_da_alloc. */
	rename(from: string, to: string): boolean {
		const leads = this.links.get(merged(from));
		if (leads !== undefined) {
			this.links.delete(merged(from));
			this.#goes(merged(from));
			this.link(to, leads);
			return true;
		}
		const file = this.get(from);
		if (!file) return false;
		this.remove(from);
		this.put(to, file);
		this.#unsettled.delete(this.#at(to));
		return true;
	}

	/** Power went: what was written within the last moments is there by name, and empty. Gives what was torn. Source: ext4(5), commit. */
	tear(): string[] {
		const torn = [...this.#unsettled].filter(([path, atMs]) => this.now() - atMs < COMMIT_MS && this.files.has(path));
		for (const [path] of torn) this.files.set(path, { ...this.files.get(path)!, text: '', bytes: null });
		this.#unsettled.clear();
		if (torn.length) this.onChange();
		return torn.map(([path]) => path);
	}

	/** Everything written is on the card for good. */
	settle(): void {
		this.#unsettled.clear();
	}

	makeFolder(path: string): void {
		let at = this.#at(path);
		while (at !== '' && !this.folders.has(at)) {
			this.folders.add(at);
			this.#comes(at);
			at = at.slice(0, at.lastIndexOf('/'));
		}
	}

	remove(path: string): boolean {
		const mount = this.#mount(path);
		if (mount) return mount.remove?.(path) ?? false;
		const at = this.links.has(merged(path)) ? merged(path) : this.#at(path);
		const file = this.files.get(at);
		if (!file && !this.links.has(at)) return false;
		this.freeBytes += sizeOf(file);
		this.files.delete(at);
		this.links.delete(at);
		this.#goes(at);
		this.onChange();
		return true;
	}

	/** A folder with all that is in it; what links lead to stays. */
	removeFolder(path: string): void {
		const within = `${this.#at(path)}/`;
		for (const known of [...this.files.keys(), ...this.links.keys()]) if (known.startsWith(within)) this.remove(known);
		for (const known of [...this.folders])
			if (known.startsWith(within) || `${known}/` === within) {
				this.folders.delete(known);
				this.#goes(known);
			}
	}

	#mount(path: string): Mount | undefined {
		for (const mount of this.mounts) if (isBelow(path, mount.prefix)) return mount;
		return undefined;
	}

	/** Text of a file; what the kernel shows as well. */
	read(path: string): string | null {
		return this.#mount(path)?.read(path) ?? this.get(path)?.text ?? null;
	}

	write(path: string, text: string, append: boolean): string | null {
		const mount = this.#mount(path);
		if (mount) return mount.write ? mount.write(path, text) : 'Permission denied';
		const known = this.get(path);
		if (!known && !this.folders.has(this.#at(path).replace(/\/[^/]+$/, '') || '/')) return 'No such file or directory';
		return this.tryPut(path, {
			mode: known?.mode ?? '0644',
			owner: known?.owner ?? 'root:root',
			...fromStream((append ? (known?.text ?? '') : '') + text)
		});
	}

	kind(path: string): 'file' | 'folder' | null {
		const mount = this.#mount(path);
		if (!mount) return this.get(path) ? 'file' : this.folders.has(this.#at(path)) ? 'folder' : null;
		if (mount.read(path) !== null) return 'file';
		const slash = path.lastIndexOf('/');
		const isListed = path === mount.prefix || mount.list(path.slice(0, slash)).includes(path.slice(slash + 1));
		return isListed || mount.list(path).length ? 'folder' : null;
	}

	/** Names in a folder. */
	list(path: string): readonly string[] {
		const mount = this.#mount(path);
		if (mount) return mount.list(path);
		if (!this.#inside) {
			this.#inside = new Map();
			for (const all of [this.files.keys(), this.folders, this.links.keys()])
				for (const known of all) this.#comes(known);
		}
		return [...(this.#inside.get(path === '/' ? '/' : this.#at(path)) ?? [])].sort();
	}

	/** Every folder on the way is one of `folders`, so each path needs its own name noted alone. */
	#comes(at: string): void {
		if (!this.#inside || at === '/') return;
		const slash = at.lastIndexOf('/');
		const folder = at.slice(0, slash) || '/';
		const names = this.#inside.get(folder);
		if (names) names.add(at.slice(slash + 1));
		else this.#inside.set(folder, new Set([at.slice(slash + 1)]));
	}
	#goes(at: string): void {
		if (this.files.has(at) || this.folders.has(at) || this.links.has(at)) return;
		const slash = at.lastIndexOf('/');
		this.#inside?.get(at.slice(0, slash) || '/')?.delete(at.slice(slash + 1));
	}

	isExecutable(path: string): boolean {
		const file = this.get(path);
		return file !== undefined && isExecutable(file);
	}

	/** A unit's file: the administrator's own before a package's. */
	unit(name: string): DiskFile | undefined {
		for (const folder of UNIT_FOLDERS) {
			const file = this.get(folder + name);
			if (file) return file;
		}
		return undefined;
	}

	/** Units that are enabled, in the order in which they were. */
	get enabled(): readonly string[] {
		return [...new Set(this.wanted.map(({ unit }) => unit))];
	}

	/** Which unit wants which when it is reached. Source: systemd.unit(5), WantedBy=. */
	get wanted(): readonly { readonly unit: string; readonly by: string }[] {
		return [...this.files.keys()].flatMap((path) => {
			const [, by, unit] = /^\/etc\/systemd\/system\/([^/]+)\.(?:wants|requires)\/([^/]+)$/.exec(path) ?? [];
			return by !== undefined && unit !== undefined ? [{ unit, by }] : [];
		});
	}

	/** As `systemctl enable` does it: a link for each target that the unit wants to be wanted by. Gives how many there are. */
	enable(name: string): number {
		const file = this.unit(name);
		const targets = file?.stub ? ['multi-user.target.wants'] : parseInstall(file?.text ?? '');
		for (const target of targets)
			this.put(`/etc/systemd/system/${target}/${name}`, { text: '', bytes: null, mode: '0777', stub: true });
		return targets.length;
	}

	disable(name: string): void {
		for (const path of [...this.files.keys()])
			if (/^\/etc\/systemd\/system\/[^/]+\.(?:wants|requires)\//.test(path) && path.endsWith(`/${name}`)) {
				this.files.delete(path);
				this.#goes(path);
			}
	}
}
