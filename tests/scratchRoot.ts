import { spawnSync } from 'node:child_process';
import {
	chmodSync,
	existsSync,
	lstatSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	readlinkSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';

const LARGEST_BYTES = 20_000_000;
/** What is at a path of the layer: text, where a link leads, or that it is gone. */
type Left = string;

/**
 * A root of its own for scripts that want the whole system: a layer over this machine's root, in a namespace of mounts that ends with
 * the command. Scripts run as they stand; whatever they change is in the layer alone. Programs that need a running system are
 * stand-ins in `/stand-ins`. Sources: mount_namespaces(7); the kernel's overlayfs document.
 */
export class ScratchRoot {
	/** Whether this machine lets one be made: it needs root, and may not be had within some containers. */
	static get isPossible(): boolean {
		if (process.getuid?.() !== 0) return false;
		const tried = new ScratchRoot();
		const { code } = tried.run(['true']);
		tried.remove();
		return code === 0;
	}

	readonly #dir = mkdtempSync(join(tmpdir(), 'yphos-root-'));
	#boots = 0;

	constructor() {
		for (const name of ['upper', 'work', 'merged']) mkdirSync(join(this.#dir, name));
		mkdirSync(join(this.#dir, 'upper/stand-ins'));
		this.restart();
	}
	remove(): void {
		rmSync(this.#dir, { recursive: true, force: true });
	}

	/** A file of the root on this machine's own disk. */
	at(path: string): string {
		return join(this.#dir, 'upper', path);
	}
	put(path: string, content: string | Uint8Array, mode = 0o644): void {
		mkdirSync(dirname(this.at(path)), { recursive: true });
		writeFileSync(this.at(path), content);
		chmodSync(this.at(path), mode);
	}
	/** A program in the place of one that needs a running system. */
	standIn(name: string, body: string): void {
		this.put(`/stand-ins/${name}`, `#!/bin/sh\n${body}\n`, 0o755);
	}
	read(path: string): string {
		return readFileSync(this.at(path), 'utf8');
	}
	has(path: string): boolean {
		return existsSync(this.at(path)) && !lstatSync(this.at(path)).isCharacterDevice();
	}
	/** As a restart does: the kernel gives itself another name, and what was in memory is gone. */
	restart(): void {
		this.#boots++;
		this.put('/stand-ins/boot_id', `boot ${this.#boots}\n`);
		rmSync(this.at('/run'), { recursive: true, force: true });
	}

	/** Everything that was changed below the folders of the system, by path: mode and content. */
	left(below: readonly string[] = ['etc', 'opt', 'usr', 'var', 'boot', 'home', 'srv']): Map<string, Left> {
		const out = new Map<string, Left>();
		const upper = join(this.#dir, 'upper');
		for (const folder of below) {
			if (!existsSync(join(upper, folder))) continue;
			for (const entry of readdirSync(join(upper, folder), { recursive: true, withFileTypes: true })) {
				const path = join(entry.parentPath, entry.name);
				const name = relative(upper, path);
				const { mode, size } = lstatSync(path);
				if (entry.isSymbolicLink()) out.set(name, `-> ${readlinkSync(path)}`);
				// Folders of this machine's own root are there for what lies below them.
				else if (entry.isDirectory()) {
					if (!existsSync(`/${name}`)) out.set(`${name}/`, (mode & 0o7777).toString(8));
				}
				// A character device is how the layer marks what is gone; a pipe would be waited for.
				else if (!entry.isFile()) continue;
				else if (size > LARGEST_BYTES) out.set(name, `${size} bytes`);
				else out.set(name, `${(mode & 0o7777).toString(8)} ${readFileSync(path, 'latin1')}`);
			}
		}
		return out;
	}

	run(
		argv: readonly string[],
		{
			env = {},
			user,
			input = '',
			timeoutMs = 60_000
		}: { env?: Record<string, string>; user?: string; input?: string; timeoutMs?: number } = {}
	): { code: number | null; out: string; err: string } {
		const { merged, upper, work } = {
			merged: join(this.#dir, 'merged'),
			upper: join(this.#dir, 'upper'),
			work: join(this.#dir, 'work')
		};
		const script = `set -e
mount -t overlay overlay -o "lowerdir=/,upperdir=${upper},workdir=${work}" "${merged}"
mount --rbind /proc "${merged}/proc"
mount --rbind /dev "${merged}/dev"
mount --bind "${merged}/stand-ins/boot_id" "${merged}/proc/sys/kernel/random/boot_id"
cd /
exec chroot ${user ? `--userspec=${user} ` : ''}"${merged}" /usr/bin/env "$@"`;
		const variables = Object.entries({ PATH: `/stand-ins:${process.env.PATH}`, ...env }).map(
			([name, value]) => `${name}=${value}`
		);
		const done = spawnSync(
			'unshare',
			[
				'-m',
				'--propagation',
				'private',
				'sh',
				'-c',
				script,
				'sh',
				...variables,
				'/usr/bin/timeout',
				'-k',
				'1',
				String(timeoutMs / 1000),
				...argv
			],
			{
				encoding: 'utf8',
				input,
				timeout: timeoutMs,
				killSignal: 'SIGKILL'
			}
		);
		return { code: done.status, out: done.stdout, err: done.stderr };
	}
}
