import { isTimeZone } from '../../../formats/systemd/zone';
import type { UserData } from '../../../formats/seed/userData';
import type { Disk } from '../disk';
import type { Machine } from '../machine';
import type { Process } from '../processes';

/** Stand-ins for the programs that look up hosts and make users. Source: getent(1), useradd(8), chpasswd(8), of Debian 12. */
export const ACCOUNT_PROGRAMS: Readonly<
	Record<string, (process: Process, machine: Machine, args: readonly string[]) => number>
> = {
	getent(process, machine, [database, name = '']) {
		if (database === 'ahosts') {
			const number = machine.numberOf(name);
			if (number === null) return 2;
			for (const kind of ['STREAM', 'DGRAM', 'RAW']) process.out(`${number.padEnd(15)} ${kind}\n`);
			return 0;
		}
		const account = machine.disk.accounts.get(name);
		if (!account) return 2;
		const hash = account.passwordCrypt ?? '';
		if (database === 'passwd') process.out(`${name}:x:1000:1000::/home/${name}:/bin/bash\n`);
		else if (database === 'shadow') process.out(`${name}:${account.locked ? `!${hash}` : hash}:20000:0:99999:7:::\n`);
		else return 1;
		return 0;
	},
	hostname(process, machine) {
		process.out(machine.disk.get(HOST_NAME_PATH)?.text ?? '');
		return 0;
	},
	id: (_process, machine, args) => (machine.disk.accounts.has(args.at(-1) ?? '') ? 0 : 1),
	useradd(process, machine, args) {
		const name = args.at(-1)!;
		if (machine.disk.accounts.has(name)) return 9;
		if (!/^[a-z_][a-z0-9_-]*$/.test(name)) {
			process.err(`useradd: invalid user name '${name}'\n`);
			return 3;
		}
		const groups = args[args.indexOf('--groups') + 1] ?? '';
		const account = {
			name,
			mayAdminister: groups.split(',').includes('sudo'),
			locked: true,
			passwordCrypt: null,
			keys: []
		};
		machine.disk.accounts.set(name, account);
		if (args.includes('--create-home')) machine.disk.makeFolder(`/home/${name}`);
		return 0;
	},
	/** Lines of name and hash on standard input. */
	chpasswd(process, machine, args) {
		if (!args.includes('--encrypted')) machine.unknown(`chpasswd ${args.join(' ')}`);
		for (const line of process.stdin.trim().split('\n')) {
			const [name = '', passwordCrypt = ''] = line.split(/:(.*)/s) as [string?, string?];
			const account = machine.disk.accounts.get(name);
			if (!account || passwordCrypt === '') return 1;
			machine.disk.accounts.set(name, { ...account, passwordCrypt, locked: /^[!*]/.test(passwordCrypt) });
		}
		return 0;
	}
};

/** Where the disk holds what a seed sets. */
export const HOST_NAME_PATH = '/etc/hostname';
const TIME_ZONE_PATH = '/etc/timezone';
/** Read before any other drop-in of sshd, by its name. Source: cloud-init 22.4, ssh_util.update_ssh_config. */
export const SEED_SSHD_PATH = '/etc/ssh/sshd_config.d/50-cloud-init.conf';

/** What a seed sets before its commands run. Source: cloud-init 22.4, modules Set Hostname, Timezone, Users and Groups, SSH. */
export function applySeed(disk: Disk, seed: Pick<UserData, 'hostName' | 'timeZone' | 'user' | 'sshByPassword'>): void {
	if (seed.hostName) disk.put(HOST_NAME_PATH, { text: `${seed.hostName}\n`, bytes: null });
	if (seed.timeZone) {
		disk.put('/etc/localtime', { text: `/usr/share/zoneinfo/${seed.timeZone}`, bytes: null });
		disk.put(TIME_ZONE_PATH, { text: `${seed.timeZone}\n`, bytes: null });
	}
	if (seed.user) disk.accounts.set(seed.user.name, seed.user);
	if (seed.sshByPassword !== null)
		disk.put(SEED_SSHD_PATH, { text: `PasswordAuthentication ${seed.sshByPassword ? 'yes' : 'no'}\n`, bytes: null });
}

/** The zone in which its clock is read; UTC where nobody set one. */
export function timeZoneOf(disk: Disk): string {
	const zone = disk.get(TIME_ZONE_PATH)?.text.trim() ?? '';
	return isTimeZone(zone) ? zone : 'UTC';
}
