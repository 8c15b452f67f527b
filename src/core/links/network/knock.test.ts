import { describe, expect, it } from 'vitest';
import { applySeed, Disk } from '../../engines/machine';
import { readUserData } from '../../formats/seed/userData';
import { sha512crypt } from '../../formats/crypt/sha512crypt';
import { writeNftables } from '../../formats/nftables/nftables';
import type { Visitor } from './bench';
import { NFT_CONF, SSHD_DROP_IN } from './files';
import { knock } from './knock';

const KEY = 'ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIAsY';
const crypt = (word: string): string => {
	const made = sha512crypt(word, 'saltsalt');
	return made.ok ? made.value : '';
};
const SEED = `#cloud-config
ssh_pwauth: true
users:
  - name: "keeper"
    sudo: "ALL=(ALL) ALL"
    lock_passwd: false
    hashed_passwd: "${crypt('three gulls in a row')}"
    ssh_authorized_keys:
      - "${KEY} keeper@skerrin"
`;
const DROP_IN = `# Who may log in
AllowUsers keeper
PermitRootLogin no
PasswordAuthentication yes
PubkeyAuthentication yes
`;
const RULES = writeNftables(
	[
		{ port: 22, protocol: 'tcp' },
		{ port: 5353, protocol: 'udp' }
	],
	['192.168.4.0/24', 'fe80::/10']
)
	.map(({ text }) => text)
	.join('\n');

/** The seed leaves it to ours whether passwords are taken. */
const NOT_SAID = SEED.replace('ssh_pwauth: true\n', '');

interface Around {
	readonly seed?: string;
	readonly dropIn?: string | null;
	readonly rules?: string | null;
	readonly enabled?: boolean;
	readonly server?: boolean;
}
function answer(
	{ seed = SEED, dropIn = DROP_IN, rules = RULES, enabled = true, server = true }: Around,
	visitor: Partial<Visitor> = {}
) {
	const disk = new Disk();
	const put = (path: string, text: string | null): void =>
		void (text !== null && disk.put(path, { text, bytes: null }));
	put(NFT_CONF, rules);
	put(SSHD_DROP_IN, dropIn);
	if (enabled) put('/etc/systemd/system/sysinit.target.wants/nftables.service', '');
	if (server) disk.packages.set('openssh-server', 'installed');
	const read = readUserData(seed);
	if (read.ok) applySeed(disk, read.value);
	return knock({ disk }, { from: '192.168.4.9', port: 22, with: 'key', keys: [], welcome: true, ...visitor });
}
const change = (text: string, from: string | RegExp, to: string): string => {
	const changed = text.replace(from, to);
	if (changed === text) throw new Error(`nothing changed: ${String(from)}`);
	return changed;
};
const PASSWORD = { with: 'password' } as const;
const STRANGER = { from: '203.0.113.9', with: 'password', welcome: false } as const;

describe('who is let in', () => {
	it.each<[string, Around, Partial<Visitor>, string]>([
		['the keeper by key', {}, {}, 'logs in by key'],
		['the keeper by the very key', {}, { keys: [`${KEY} another name for it`] }, 'logs in by key'],
		['the keeper by password', {}, PASSWORD, 'logs in by password'],
		['by IPv6 from near', {}, { from: 'fe80::5' }, 'logs in by key'],
		[
			'one who may change nothing',
			{ seed: change(SEED, /\n.*sudo.*/, '') },
			{},
			'logs in by key, and may change nothing'
		],
		['without a drop-in, as the seed has it', { dropIn: null }, PASSWORD, 'logs in by password'],
		['from anywhere where no rules are loaded', { enabled: false }, { from: '203.0.113.9' }, 'logs in by key'],
		[
			'from anywhere where nft refuses the rules',
			{ rules: change(RULES, 'accept', 'acept') },
			{ from: '203.0.113.9' },
			'logs in by key'
		],
		[
			'a stranger who guesses one of the first',
			{ enabled: false, seed: change(SEED, crypt('three gulls in a row'), crypt('admin')) },
			STRANGER,
			'is let in with a password that is tried first'
		],
		['at another port that no rule shuts', { enabled: false }, { port: 80, with: 'nothing' }, 'is let in']
	])('%s', (_, around, visitor, words) => expect(answer(around, visitor)).toEqual({ open: true, words }));

	it.each<[string, Around, Partial<Visitor>, string]>([
		['from afar', {}, { from: '203.0.113.9' }, 'is turned away, not from near'],
		['from near, at a port that is not open', {}, { port: 80, with: 'nothing' }, 'finds nothing there'],
		['where no server is', { server: false }, {}, 'finds no server for logging in'],
		['where nobody was made', { seed: change(SEED, /users:[^]*/, '') }, {}, 'finds no user to log in as'],
		[
			'where the seed cannot be read',
			{ seed: change(SEED, '#cloud-config', '#config') },
			{},
			'finds no user to log in as'
		],
		[
			'where another user is allowed',
			{ dropIn: change(DROP_IN, 'AllowUsers keeper', 'AllowUsers warden') },
			{},
			'is refused: only warden may log in, and the user is keeper'
		],
		['with another key', {}, { keys: ['ssh-ed25519 BBBB'] }, 'may not use a key'],
		[
			'by key where keys are off',
			{ dropIn: change(DROP_IN, 'PubkeyAuthentication yes', 'PubkeyAuthentication no') },
			{},
			'may not use a key'
		],
		['by key where none was given', { seed: change(SEED, /\n.*ssh_authorized[^]*/, '\n') }, {}, 'may not use a key'],
		[
			'by password where it is off',
			{ seed: NOT_SAID, dropIn: change(DROP_IN, 'PasswordAuthentication yes', 'PasswordAuthentication no') },
			PASSWORD,
			'may not use a password'
		],
		[
			'by password where the first of two lines says no',
			{ seed: NOT_SAID, dropIn: `PasswordAuthentication no\n${DROP_IN}` },
			PASSWORD,
			'may not use a password'
		],
		[
			'by password where the seed says no: its own file is read before ours',
			{ seed: change(SEED, 'ssh_pwauth: true', 'ssh_pwauth: false') },
			PASSWORD,
			'may not use a password'
		],
		[
			'by password where it is locked',
			{ seed: change(SEED, 'lock_passwd: false', 'lock_passwd: true') },
			PASSWORD,
			'finds no password that would do'
		],
		[
			'a stranger where it is locked',
			{ enabled: false, seed: change(SEED, 'lock_passwd: false', 'lock_passwd: true') },
			STRANGER,
			'finds no password that would do'
		],
		['a stranger who guesses', { enabled: false }, STRANGER, 'is asked for the password, and this one is wrong'],
		['with nothing', {}, { with: 'nothing' }, 'is asked who it is'],
		[
			'a misspelt line keeps sshd from starting',
			{ dropIn: change(DROP_IN, 'PermitRootLogin', 'PermitRotLogin') },
			{},
			'finds no server: sshd does not start with "PermitRotLogin no"'
		],
		[
			'so does a value that it does not take',
			{ dropIn: change(DROP_IN, 'PermitRootLogin no', 'PermitRootLogin never') },
			{},
			'finds no server: sshd does not start with "PermitRootLogin never"'
		]
	])('not %s', (_, around, visitor, words) => expect(answer(around, visitor)).toEqual({ open: false, words }));
});
