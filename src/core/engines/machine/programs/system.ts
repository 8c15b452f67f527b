import { readAptConf } from '../../../formats/aptConf';
import { packageBytes } from '../../../files/packageRoom';
import { unpack } from '../image';
import { parseInstall } from '../install';
import type { Machine } from '../machine';
import { ASKED_PACKAGES, IMAGE_PACKAGES } from '../packageTable';
import type { Process, Program } from '../processes';
import type { Fault } from '../timeline';

/** Stand-ins for systemctl, dpkg, apt-get and the network's commands, failures too. Source: their own man pages. */
const TAKES_MS = 20;
/** To stop what runs and write out what is open. Typical. */
const POWER_OFF_MS = 4000;
/** To fetch lists; to fetch and set up one package. Typical of a card and a home's line. */
const LISTS_MS = 8000;
const PACKAGE_MS = 15_000;
const LISTS = '/var/lib/apt/lists/archive_Packages';

const plain = (args: readonly string[]): string[] => args.filter((arg) => !arg.startsWith('-'));

/** One that cannot be enabled, having no [Install], is no failure. Source: systemctl(1), is-enabled. */
function enabledState(process: Process, machine: Machine, unit: string): number {
	const { disk } = machine;
	const file = disk.unit(unit)!;
	const state = disk.enabled.includes(unit)
		? 'enabled'
		: file.stub || parseInstall(file.text).length
			? 'disabled'
			: 'static';
	if (state === 'static') machine.unknown(`${unit} has no [Install]: nothing starts it with the board`);
	if (!process.argv.includes('--quiet')) process.out(`${state}\n`);
	return state === 'disabled' ? 1 : 0;
}

const systemctl: Program = (process, machine) => {
	const args = process.argv.slice(1);
	const [verb = '', ...units] = plain(args);
	const { disk } = machine;
	const answer = (): number => {
		const [unit = ''] = units;
		switch (verb) {
			case 'daemon-reload':
				machine.systemd.reload();
				return 0;
			case 'is-enabled':
				if (!disk.unit(unit)) return 1;
				return enabledState(process, machine, unit);
			case 'is-active':
				return machine.systemd.isActive(unit) ? 0 : 3;
			case 'enable':
				if (!disk.unit(unit)) {
					process.err(`Failed to enable unit: Unit file ${unit} does not exist.\n`);
					return 1;
				}
				disk.enable(unit);
				return 0;
			case 'try-restart':
				if (!machine.systemd.isActive(unit)) return 0;
				machine.systemd.stop(unit);
				machine.systemd.start(unit);
				return 0;
			case 'disable':
				if (!disk.unit(unit)) return 1;
				disk.disable(unit);
				if (args.includes('--now')) machine.systemd.stop(unit);
				return 0;
			case 'start':
			case 'restart':
				if (!disk.unit(unit)) return 5;
				machine.emit('unit-asked', { verb: 'start', unit });
				if (verb === 'restart') machine.systemd.stop(unit);
				machine.systemd.start(unit);
				return 0;
			case 'stop':
				if (!disk.unit(unit)) return 5;
				machine.systemd.stop(unit);
				machine.emit('unit-asked', { verb: 'stop', unit });
				return 0;
			case 'show':
				if (!args.includes('--property=NRestarts') || !args.includes('--value'))
					machine.unknown(`systemctl ${args.join(' ')}`);
				process.out(`${machine.systemd.restartsOf(unit)}\n`);
				return 0;
			case 'poweroff':
				machine.say('powers-off', 'info');
				machine.after(POWER_OFF_MS, () => machine.mains(false));
				return 0;
			default:
				machine.unknown(`systemctl ${verb}`);
				return 0;
		}
	};
	process.after(TAKES_MS, () => process.exit(answer()));
};

/** dpkg-query -W -f '${db:Status-Status}' NAME, dpkg -s NAME, and dpkg --configure -a, which sets up what was left half-way. */
const query: Program = (process, machine) => {
	if (process.argv.includes('--configure')) {
		if (machine.activeFaults.has('archive-locked')) {
			process.err('dpkg: error: dpkg frontend lock was locked by another process with pid 611\n');
			return process.after(TAKES_MS, () => process.exit(2));
		}
		const settles = process.argv.some((arg) => arg.startsWith('--force-conf'));
		for (const [name, state] of machine.disk.packages)
			if (state !== 'installed' && settles) machine.disk.packages.set(name, 'installed');
		return process.after(TAKES_MS, () => process.exit(0));
	}
	const name = plain(process.argv.slice(1)).at(-1) ?? '';
	const state = machine.disk.packages.get(name);
	const asks = process.argv.some((arg) => arg.includes('db:Status-Status'));
	if (asks && state) process.out(state);
	else if (state) process.out(`Package: ${name}\nStatus: install ok ${state}\n`);
	else process.err(`no packages found matching ${name}\n`);
	process.after(TAKES_MS, () => process.exit(state ? 0 : 1));
};

/** What an archive can do to a first start; faults by name. */
export const ARCHIVE_FAULTS = {
	'archive-absent': { label: 'Archive of packages not reachable', lastsMs: 3_600_000, fromStart: true },
	'archive-late': { label: 'Archive comes back after a while', lastsMs: 90_000, fromStart: true },
	'archive-locked': { label: 'Another program holds the package list', lastsMs: 180_000, fromStart: true }
} as const satisfies Record<string, Fault>;

/** Lists older than the clock says are refused, and so are lists from the future. Source: apt-secure(8); apt.conf(5), Acquire::Check-Date. */
const isTimeWrong = (machine: Machine): boolean => machine.clockBehindMs > ACCEPTED_MS;
const ACCEPTED_MS = 10_000;
/** To give up on an archive that does not answer. Typical. */
const GIVES_UP_MS = 20_000;

const aptGet: Program = (process, machine) => {
	const args = process.argv.slice(1);
	const options = args.flatMap((arg, n) => (args[n - 1] === '-o' ? [arg] : []));
	const [verb, ...names] = args.filter((arg, n) => !arg.startsWith('-') && args[n - 1] !== '-o');
	const configured = process.env.get('APT_CONFIG');
	if (configured !== undefined && machine.disk.get(configured) === undefined) {
		process.err(`E: Could not read ${configured}\n`);
		return process.after(TAKES_MS, () => process.exit(100));
	}
	if (verb !== 'update' && verb !== 'install' && verb !== 'clean') {
		machine.unknown(`apt-get ${verb}`);
		return process.after(TAKES_MS, () => process.exit(0));
	}
	// Of dpkg's lock DPkg::Lock::Timeout says how long it is waited for, by default not at all; that of the lists is not waited for. Source:
	// apt.conf(5); apt 2.6, and as it was seen to do.
	const patienceMs =
		verb === 'install' ? 1000 * Number(/DPkg::Lock::Timeout=(\d+)/.exec(options.join(' '))?.[1] ?? 0) : 0;
	const sinceMs = machine.clock.nowMs;
	const begin = (): void => {
		if (!machine.activeFaults.has('archive-locked'))
			return verb === 'update'
				? update(process, machine, options)
				: verb === 'install'
					? install(process, machine, names, options)
					: process.after(TAKES_MS, () => process.exit(0));
		if (machine.clock.nowMs - sinceMs >= patienceMs) {
			process.err(
				`E: Could not get lock ${verb === 'install' ? '/var/lib/dpkg/lock-frontend' : '/var/lib/apt/lists/lock'}. It is held by process 611 (apt-get)\n`
			);
			return process.exit(100);
		}
		process.after(1000, begin);
	};
	begin();
};

/** Limited to this many kB a second, lists take several times as long; what else such a file says is not known here. Source: apt.conf(5). */
function slowedBy({ env }: Process, machine: Machine): number {
	const path = env.get('APT_CONFIG');
	const settings = readAptConf(path === undefined ? '' : (machine.disk.read(path) ?? ''));
	for (const key of settings.keys()) if (!LIMITS.includes(key)) machine.unknown(`${key} in ${path}`);
	const limit = Number(settings.get(LIMITS[0]!) ?? Infinity);
	return Math.max(1, USUAL_KBYTES_PER_SEC / limit);
}
const LIMITS: readonly string[] = ['Acquire::http::Dl-Limit', 'Acquire::https::Dl-Limit'];
/** What a home's line gives. Typical. */
const USUAL_KBYTES_PER_SEC = 2000;

/** Without APT::Update::Error-Mode=any a list that could not be fetched is a warning only. Source: apt-get(8), update. */
function update(process: Process, machine: Machine, options: readonly string[]): void {
	const wrong = isTimeWrong(machine);
	const strict = options.some((option) => option === 'APT::Update::Error-Mode=any');
	const unreachable =
		!machine.online || machine.activeFaults.has('archive-absent') || machine.activeFaults.has('archive-late');
	process.after(unreachable ? GIVES_UP_MS : LISTS_MS * slowedBy(process, machine), () => {
		if (unreachable) process.err('W: Some index files failed to download.\n');
		else if (wrong) process.err('E: Release file is not valid yet.\n');
		else {
			machine.disk.put(LISTS, { text: '', bytes: null, stub: true });
			return process.exit(0);
		}
		process.exit(strict || !unreachable ? 100 : 0);
	});
}

function install(process: Process, machine: Machine, names: readonly string[], options: readonly string[]): void {
	// An image brings no lists: before they are fetched, apt knows of no package.
	const hasLists = machine.disk.get(LISTS) !== undefined;
	const unheard = names.find((name) => !hasLists || (!ASKED_PACKAGES[name] && !IMAGE_PACKAGES[name]));
	const fail = (text: string, afterMs: number): void => {
		process.err(`${text}\n`);
		process.after(afterMs, () => process.exit(100));
	};
	if (unheard !== undefined) return fail(`E: Unable to locate package ${unheard}`, TAKES_MS);
	if (!machine.online || machine.activeFaults.has('archive-absent'))
		return fail('E: Failed to fetch packages', GIVES_UP_MS);
	const bytes = names.reduce((sum, name) => sum + packageBytes(name), 0);
	if (machine.disk.freeBytes < bytes)
		return fail("E: You don't have enough free space in /var/cache/apt/archives/.", TAKES_MS);
	// Nobody answers at a first start: unless told which to keep, dpkg asks about each file that stands where its own should.
	const settles = options.some((option) => /--force-conf(?:old|new|def)/.test(option));
	process.after(PACKAGE_MS * names.length, () => {
		let code = 0;
		for (const name of names) {
			const contents = ASKED_PACKAGES[name] ?? IMAGE_PACKAGES[name]!;
			const disputed = contents.conffiles.find((path) => machine.disk.get(path) && !machine.disk.get(path)!.stub);
			unpack(machine.disk, name, contents);
			machine.disk.freeBytes -= packageBytes(name);
			if (disputed === undefined || settles) continue;
			process.err(`dpkg: error processing package ${name}: end of file on stdin at conffile prompt for ${disputed}\n`);
			machine.disk.packages.set(name, 'half-configured');
			code = 100;
		}
		process.exit(code);
	});
}

/** Whether the time has come from the network yet, and which zone is set. */
const timedatectl: Program = (process, machine) => {
	const property = process.argv.find((arg) => arg.startsWith('--property='))?.slice('--property='.length);
	if (property === 'Timezone') process.out(`${machine.timeZone}\n`);
	else process.out(machine.online && machine.clockBehindMs === 0 ? 'yes\n' : 'no\n');
	process.after(TAKES_MS, () => process.exit(0));
};

const quick: Program = (process) => process.after(TAKES_MS, () => process.exit(0));

/** Puts the stand-ins for systemctl, dpkg, apt-get and their like under /usr/bin. Source: their manual pages in Debian 12. */
export function addSystemPrograms(machine: Machine): void {
	machine.programs.set('/usr/bin/systemctl', systemctl);
	machine.programs.set('/usr/bin/dpkg', query);
	machine.programs.set('/usr/bin/dpkg-query', query);
	machine.programs.set('/usr/bin/apt-get', aptGet);
	machine.programs.set('/usr/bin/timedatectl', timedatectl);
	for (const path of ['/usr/sbin/update-initramfs', '/usr/bin/nmcli', '/usr/bin/nm-online', '/usr/sbin/locale-gen'])
		machine.programs.set(path, quick);
}
