import { sha512crypt } from '../../formats/crypt/sha512crypt';
import { contains, readAddress, readCidr } from '../../formats/ip/cidr';
import { linesOf } from '../../formats/lines';
import { readNftables } from '../../formats/nftables/nftables';
import type { Machine } from '../../engines/machine';
import type { Visitor } from './bench';
import { NFT_CONF, SSHD_DROP_IN } from './files';

/** Whether somebody who knocks gets in, and in what words. */
export interface Answer {
	readonly open: boolean;
	readonly words: string;
}
const shut = (words: string): Answer => ({ open: false, words });

/** Passwords that a stranger begins with. */
const GUESSES = ['password', 'admin', '12345678'];

/** What the files answer to somebody who knocks: first the rules for what may come in, then the server behind them. */
export function knock(machine: Pick<Machine, 'disk' | 'card'>, visitor: Omit<Visitor, 'welcome'>): Answer {
	const rules = machine.disk.enabled.includes('nftables.service') ? machine.disk.get(NFT_CONF) : undefined;
	if (rules && !rules.stub) {
		const { near: ranges, openings, dropsRest } = readNftables(rules.text);
		const address = readAddress(visitor.from);
		const near = ranges.some((range) => {
			const network = readCidr(range);
			return network.ok && address.ok && contains(network.value, address.value);
		});
		const opened = openings.some(({ protocol, port }) => protocol === 'tcp' && port === visitor.port);
		if (dropsRest && !(near && opened)) return shut(near ? 'finds nothing there' : 'is turned away, not from near');
	}
	return visitor.port === 22 ? logIn(machine, visitor) : { open: true, words: 'is let in' };
}

/** Source: sshd_config(5). The first value found counts; drop-ins are read first, in the order of their names. */
function logIn(machine: Pick<Machine, 'disk' | 'card'>, visitor: Pick<Visitor, 'with'>): Answer {
	if (machine.disk.packages.get('openssh-server') !== 'installed') return shut('finds no server for logging in');
	const seed = machine.card.get('boot/user-data')?.text ?? '';
	const dropIn = machine.disk.get(SSHD_DROP_IN)?.text ?? '';
	const setting = (name: string, otherwise: string): string =>
		linesOf(dropIn)
			.map((line) => line.trim().split(/\s+/))
			.find(([key]) => key?.toLowerCase() === name.toLowerCase())?.[1] ?? otherwise;
	const user = /^\s*-\s*name: "?([^"\n]+)"?$/m.exec(seed)?.[1];
	const allowed = setting('AllowUsers', user ?? '');
	if (user === undefined) return shut('finds no user to log in as');
	if (allowed !== user) return shut(`is refused: only ${allowed} may log in, and the user is ${user}`);
	// Written by cloud-init where the seed says so; sshd's own default is yes.
	const byPassword = setting('PasswordAuthentication', /^ssh_pwauth: false$/m.test(seed) ? 'no' : 'yes');
	if (visitor.with === 'password') return byPassword === 'yes' ? guess(seed) : shut('may not use a password');
	if (visitor.with !== 'key') return shut('is asked who it is');
	const keys = /ssh_authorized_keys:\s*\n\s*-\s*"?(?:ssh-|ecdsa-|sk-)/.test(seed);
	return setting('PubkeyAuthentication', 'yes') === 'yes' && keys
		? { open: true, words: 'logs in by key' }
		: shut('may not use a key');
}

/** Tries them against what the seed holds, as the endpoint itself would. */
function guess(seed: string): Answer {
	if (/^\s*lock_passwd: true$/m.test(seed)) return shut('finds no password that would do');
	const crypt = /hashed_passwd: "(\$6\$[^"]*)"/.exec(seed)?.[1];
	const salt = crypt && /^\$6\$([^$]*)\$/.exec(crypt)?.[1];
	const fits =
		salt !== undefined &&
		GUESSES.some((word) => {
			const made = sha512crypt(word, salt);
			return made.ok && made.value === crypt;
		});
	return fits
		? { open: true, words: 'is let in with a password that is tried first' }
		: shut('is asked for the password, and this one is wrong');
}
