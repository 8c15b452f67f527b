import { sha512crypt } from '../../formats/crypt/sha512crypt';
import { contains, readAddress, readCidr } from '../../formats/ip/cidr';
import { readSeedAccount, type SeedAccount } from '../../formats/seed/account';
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
	const account = readSeedAccount(machine.card.get('boot/user-data')?.text ?? '');
	const { user } = account;
	const dropIn = machine.disk.get(SSHD_DROP_IN)?.text ?? '';
	const setting = (name: string, otherwise: string): string =>
		linesOf(dropIn)
			.map((line) => line.trim().split(/\s+/))
			.find(([key]) => key?.toLowerCase() === name.toLowerCase())?.[1] ?? otherwise;
	const allowed = setting('AllowUsers', user ?? '');
	if (user === null) return shut('finds no user to log in as');
	if (allowed !== user) return shut(`is refused: only ${allowed} may log in, and the user is ${user}`);
	// Written by cloud-init where the seed says so; sshd's own default is yes.
	const byPassword = setting('PasswordAuthentication', account.sshByPassword === false ? 'no' : 'yes');
	if (visitor.with === 'password') return byPassword === 'yes' ? guess(account) : shut('may not use a password');
	if (visitor.with !== 'key') return shut('is asked who it is');
	return setting('PubkeyAuthentication', 'yes') === 'yes' && account.hasKey
		? { open: true, words: 'logs in by key' }
		: shut('may not use a key');
}

/** Tries them against what the seed holds, as the endpoint itself would. */
function guess({ locked, passwordCrypt: crypt }: SeedAccount): Answer {
	if (locked) return shut('finds no password that would do');
	const salt = /^\$6\$([^$]*)\$/.exec(crypt ?? '')?.[1];
	const fits =
		crypt !== null &&
		salt !== undefined &&
		GUESSES.some((word) => {
			const made = sha512crypt(word, salt);
			return made.ok && made.value === crypt;
		});
	return fits
		? { open: true, words: 'is let in with a password that is tried first' }
		: shut('is asked for the password, and this one is wrong');
}
