import { unpack } from '../image';
import type { Machine } from '../machine';
import { ASKED_PACKAGES, IMAGE_PACKAGES } from '../packageTable';
import type { Program } from '../processes';

/** Stand-ins for systemctl, dpkg, apt-get and the network's commands, failures too. Source: their own man pages. */
const TAKES_MS = 20;
/** To fetch lists; to fetch and set up one package. Typical of a card and a home's line. */
const LISTS_MS = 8000;
const PACKAGE_MS = 15_000;
const LISTS = '/var/lib/apt/lists/archive_Packages';

const plain = (args: readonly string[]): string[] => args.filter((arg) => !arg.startsWith('-'));

const systemctl: Program = (process, machine) => {
	const args = process.argv.slice(1);
	const [verb = '', ...units] = plain(args);
	const { disk } = machine;
	const answer = (): number => {
		const [unit = ''] = units;
		switch (verb) {
			case 'daemon-reload':
				return 0;
			case 'is-enabled':
				return disk.enabled.includes(unit) ? 0 : 1;
			case 'is-active':
				return machine.systemd.isActive(unit) ? 0 : 3;
			case 'enable':
				if (!disk.unit(unit)) {
					process.err(`Failed to enable unit: Unit file ${unit} does not exist.\n`);
					return 1;
				}
				if (disk.enable(unit) === 0) machine.unknown(`${unit} has no [Install]: it is enabled in name only`);
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

const aptGet: Program = (process, machine) => {
	const args = process.argv.slice(1);
	const options = args.flatMap((arg, n) => (args[n - 1] === '-o' ? [arg] : []));
	const [verb, ...names] = args.filter((arg, n) => !arg.startsWith('-') && args[n - 1] !== '-o');
	if (verb === 'update')
		return process.after(LISTS_MS, () => {
			machine.disk.put(LISTS, { text: '', bytes: null, stub: true });
			process.exit(0);
		});
	if (verb !== 'install') {
		machine.unknown(`apt-get ${verb}`);
		return process.after(TAKES_MS, () => process.exit(0));
	}
	// An image brings no lists: before they are fetched, apt knows of no package.
	const hasLists = machine.disk.get(LISTS) !== undefined;
	const unheard = names.find((name) => !hasLists || (!ASKED_PACKAGES[name] && !IMAGE_PACKAGES[name]));
	if (unheard !== undefined) {
		process.err(`E: Unable to locate package ${unheard}\n`);
		return process.after(TAKES_MS, () => process.exit(100));
	}
	// Nobody answers at a first start: unless told which to keep, dpkg asks about each file that stands where its own should.
	const settles = options.some((option) => /--force-conf(?:old|new|def)/.test(option));
	process.after(PACKAGE_MS * names.length, () => {
		let code = 0;
		for (const name of names) {
			const contents = ASKED_PACKAGES[name] ?? IMAGE_PACKAGES[name]!;
			const disputed = contents.conffiles.find((path) => machine.disk.get(path) && !machine.disk.get(path)!.stub);
			unpack(machine.disk, name, contents);
			if (disputed === undefined || settles) continue;
			process.err(`dpkg: error processing package ${name}: end of file on stdin at conffile prompt for ${disputed}\n`);
			machine.disk.packages.set(name, 'half-configured');
			code = 100;
		}
		process.exit(code);
	});
};

/** Time from the network is there as soon as the network is. */
const timedatectl: Program = (process) => {
	process.out('yes\n');
	process.after(TAKES_MS, () => process.exit(0));
};

const quick: Program = (process) => process.after(TAKES_MS, () => process.exit(0));

export function addSystemPrograms(machine: Machine): void {
	machine.programs.set('/usr/bin/systemctl', systemctl);
	machine.programs.set('/usr/bin/dpkg', query);
	machine.programs.set('/usr/bin/dpkg-query', query);
	machine.programs.set('/usr/bin/apt-get', aptGet);
	machine.programs.set('/usr/bin/timedatectl', timedatectl);
	for (const path of ['/usr/bin/nmcli', '/usr/bin/nm-online', '/usr/sbin/locale-gen'])
		machine.programs.set(path, quick);
}
