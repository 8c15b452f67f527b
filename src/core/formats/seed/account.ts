import { linesOf } from '../lines';

/** What a cloud-init user-data file says of the one who looks after the endpoint, and of its name. Source: cloud-init, Users and Groups. */
export interface SeedAccount {
	readonly hostName: string | null;
	readonly user: string | null;
	readonly hasKey: boolean;
	/** No password would do. */
	readonly locked: boolean;
	readonly passwordCrypt: string | null;
	/** Whether sshd is told to take passwords; null: not said. */
	readonly sshByPassword: boolean | null;
}

const unquoted = (text: string): string => text.trim().replace(/^"([^"]*)"$/, '$1');

/** Line by line, in the form in which card sets write it. */
export function readSeedAccount(userData: string): SeedAccount {
	const lines = linesOf(userData).map((line) => line.trim());
	const valueOf = (key: string): string | null => {
		const line = lines.find((known) => known.startsWith(`${key}:`));
		return line === undefined ? null : unquoted(line.slice(key.length + 1));
	};
	const keysAt = lines.indexOf('ssh_authorized_keys:');
	const password = valueOf('ssh_pwauth');
	return {
		hostName: valueOf('hostname') || null,
		user: valueOf('- name') || null,
		hasKey: keysAt >= 0 && /^- "?(?:ssh|ecdsa|sk)-/.test(lines[keysAt + 1] ?? ''),
		locked: valueOf('lock_passwd') === 'true',
		passwordCrypt: valueOf('hashed_passwd') || null,
		sshByPassword: password === null ? null : password === 'true'
	};
}
