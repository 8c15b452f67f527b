import { sha512crypt } from '../../formats/crypt/sha512crypt';
import { linesOf } from '../../formats/lines';
import type { SeedUser } from '../../formats/seed/userData';
import { rulesOf, SEED_SSHD_PATH, type Machine } from '../../engines/machine';
import type { Visitor } from './bench';
import { SSHD_DROP_IN } from './files';

/** Whether somebody who knocks gets in, and in what words. */
export interface Answer {
	readonly open: boolean;
	readonly words: string;
}
const shut = (words: string): Answer => ({ open: false, words });

/** Passwords that a stranger begins with. */
const GUESSES = ['password', 'admin', '12345678'];

type Endpoint = Pick<Machine, 'disk'>;

/** What the files answer to somebody who knocks: first the rules for what may come in, then the server behind them. */
export function knock(machine: Endpoint, visitor: Visitor): Answer {
	const rules = rulesOf(machine);
	if (rules?.ok && !rules.value.accepts({ from: visitor.from, protocol: 'tcp', port: visitor.port }))
		return shut(
			NEAR_PORTS.some((port) => rules.value.accepts({ from: visitor.from, ...port }))
				? 'finds nothing there'
				: 'is turned away, not from near'
		);
	return visitor.port === 22 ? logIn(machine, visitor) : { open: true, words: 'is let in' };
}
/** Who is near may at least ask for the endpoint by name. */
const NEAR_PORTS = [
	{ protocol: 'udp', port: 5353 },
	{ protocol: 'tcp', port: 22 }
] as const;

/** What a prompt at its own screen answers to the keeper. Only one with a password gets in there. Source: login(1). */
export function logInAtScreen({ disk }: Endpoint, name: string): Answer {
	const user = disk.accounts.get(name);
	if (!user) return shut('is not known at its screen');
	if (user.locked) return shut('finds no password that would do at its screen');
	return { open: true, words: `logs in at its screen${user.mayAdminister ? '' : ', and may change nothing'}` };
}

/** Settings of sshd that card sets use, with what they take. Source: sshd_config(5). */
const SSHD: Readonly<Record<string, RegExp>> = {
	allowusers: /^[a-z_][a-z0-9_-]*$/,
	permitrootlogin: /^(?:yes|no|prohibit-password|forced-commands-only)$/,
	passwordauthentication: /^(?:yes|no)$/,
	pubkeyauthentication: /^(?:yes|no)$/,
	kbdinteractiveauthentication: /^(?:yes|no)$/,
	permitemptypasswords: /^(?:yes|no)$/
};

/** The first value found counts; drop-ins are read first. A line that sshd does not know keeps it from starting. */
function logIn(machine: Endpoint, visitor: Pick<Visitor, 'with' | 'keys' | 'welcome'>): Answer {
	if (machine.disk.packages.get('openssh-server') !== 'installed') return shut('finds no server for logging in');
	const [user = null] = machine.disk.accounts.values();
	// In the order of their names; the first value found counts.
	const lines = [SEED_SSHD_PATH, SSHD_DROP_IN]
		.flatMap((path) => linesOf(machine.disk.get(path)?.text ?? ''))
		.map((line) => line.trim())
		.filter((line) => line !== '' && !line.startsWith('#'))
		.map((line) => line.split(/\s+/));
	const wrong = lines.find(([key, value]) => !SSHD[key!.toLowerCase()]?.test(value ?? ''));
	if (wrong) return shut(`finds no server: sshd does not start with "${wrong.join(' ')}"`);
	const setting = (name: string, otherwise: string): string =>
		lines.find(([key]) => key!.toLowerCase() === name.toLowerCase())?.[1] ?? otherwise;
	if (user === null) return shut('finds no user to log in as');
	const allowed = setting('AllowUsers', user.name);
	if (allowed !== user.name) return shut(`is refused: only ${allowed} may log in, and the user is ${user.name}`);
	const byPassword = setting('PasswordAuthentication', 'yes');
	const powers = user.mayAdminister ? '' : ', and may change nothing';
	if (visitor.with === 'password') {
		if (byPassword !== 'yes') return shut('may not use a password');
		if (!visitor.welcome) return guess(user);
		return user.locked
			? shut('finds no password that would do')
			: { open: true, words: `logs in by password${powers}` };
	}
	if (visitor.with !== 'key') return shut('is asked who it is');
	const brought = visitor.keys.map(keyOf);
	const held = [
		...user.keys,
		...linesOf(machine.disk.get(`/home/${user.name}/.ssh/authorized_keys`)?.text ?? '').filter(Boolean)
	];
	const fits = held.some((key) => brought.length === 0 || brought.includes(keyOf(key)));
	return setting('PubkeyAuthentication', 'yes') === 'yes' && fits
		? { open: true, words: `logs in by key${powers}` }
		: shut('may not use a key');
}

/** Kind and key, without the name behind it. */
const keyOf = (line: string): string => line.trim().split(/\s+/, 2).join(' ');

/** Tries them against what the seed holds, as the endpoint itself would. */
function guess({ locked, passwordCrypt: crypt }: SeedUser): Answer {
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
