import { parse } from 'yaml';
import { z } from 'zod';
import { fault, ok, type Result } from '../../basics/result';
import { isTimeZone } from '../systemd/zone';
import { safely } from '../../basics/safely';

/**
 * A cloud-init user-data file, as far as card sets use it. Source: cloud-init, "User data formats" and the modules Runcmd,
 * Users and Groups, SSH, Timezone, Set Hostname, Power State Change.
 */
export interface UserData {
	readonly hostName: string | null;
	readonly timeZone: string | null;
	/** The first of its users. */
	readonly user: SeedUser | null;
	/** Whether sshd is told to take passwords; null: not said. */
	readonly sshByPassword: boolean | null;
	/** Commands of the first start, as words. */
	readonly commands: readonly (readonly string[])[];
	/** Asked for after them: a restart when this command succeeds; null: none. */
	readonly restartsWhen: string | null;
	/** What else it says. */
	readonly unknown: readonly string[];
}
/** A user as the seed creates it. Source: cloud-init 22.4, module "Users and Groups". */
export interface SeedUser {
	readonly name: string;
	readonly mayAdminister: boolean;
	/** No password would do. */
	readonly locked: boolean;
	readonly passwordCrypt: string | null;
	readonly keys: readonly string[];
}

const MOST_LETTERS = 65_536;
const user = z.looseObject({
	name: z.string(),
	groups: z.union([z.array(z.string()), z.string()]).optional(),
	shell: z.string().optional(),
	sudo: z.union([z.string(), z.array(z.string())]).optional(),
	lock_passwd: z.boolean().optional(),
	hashed_passwd: z.string().optional(),
	ssh_authorized_keys: z.array(z.string()).optional()
});
const userData = z.looseObject({
	hostname: z.string().optional(),
	timezone: z.string().optional(),
	users: z.array(user).optional(),
	ssh_pwauth: z.boolean().optional(),
	runcmd: z.array(z.union([z.string(), z.array(z.coerce.string())])).optional(),
	power_state: z
		.looseObject({
			mode: z.string(),
			delay: z.union([z.number(), z.string()]).optional(),
			condition: z.union([z.string(), z.boolean()]).optional()
		})
		.optional()
});
const strange = (value: object, known: z.ZodObject, at: string): string[] =>
	Object.keys(value)
		.filter((key) => !(key in known.shape))
		.map((key) => `${at}${key}`);

/** Faults: `seed-kind` (the first line does not say what it is), `seed-large`, `seed-yaml`, `seed-shape`. */
export function readUserData(text: string): Result<UserData> {
	if (!/^#cloud-config\s*(?:\n|$)/.test(text))
		return fault('seed-kind', 'user-data does not begin with #cloud-config: the image passes over it.');
	if (text.length > MOST_LETTERS) return fault('seed-large', 'user-data is larger than any of ours.');
	let value: unknown;
	try {
		value = parse(text, { maxAliasCount: 0 });
	} catch (error) {
		return fault('seed-yaml', `user-data cannot be read: ${(error as Error).message.split('\n')[0]}`);
	}
	const parsed = safely(userData, value ?? {});
	if (!parsed.success) {
		const [issue] = parsed.error.issues;
		return fault('seed-shape', `user-data: ${issue!.path.join('.')}: ${issue!.message}`);
	}
	const { hostname, timezone, users = [], ssh_pwauth, runcmd = [], power_state: power } = parsed.data;
	return ok({
		hostName: hostname ?? null,
		timeZone: timezone !== undefined && isTimeZone(timezone) ? timezone : null,
		user: users[0] ? userOf(users[0]) : null,
		sshByPassword: ssh_pwauth ?? null,
		commands: runcmd.map((command) => (typeof command === 'string' ? ['sh', '-c', command] : command)),
		restartsWhen: power?.mode === 'reboot' && power.condition !== false ? String(power.condition ?? 'true') : null,
		unknown: [
			...strange(parsed.data, userData, ''),
			...users.flatMap((one) => strange(one, user, 'users.')),
			...(timezone !== undefined && !isTimeZone(timezone) ? [`timezone ${timezone}`] : [])
		]
	});
}

const userOf = (one: z.infer<typeof user>): SeedUser => ({
	name: one.name,
	mayAdminister: one.sudo !== undefined && /\bALL\b/.test([one.sudo].flat().join(' ')),
	locked: one.lock_passwd ?? true,
	passwordCrypt: one.hashed_passwd ?? null,
	keys: one.ssh_authorized_keys ?? []
});
