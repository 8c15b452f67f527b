import { z } from 'zod';
import { fault, ok, type Result } from '../../basics/result';
import { safely } from '../../basics/safely';

const card = z.looseObject({
	match: z.looseObject({ name: z.string().optional() }).optional(),
	dhcp4: z.boolean().optional(),
	optional: z.boolean().optional()
});
const config = z.looseObject({
	version: z.literal(2),
	renderer: z.enum(['NetworkManager', 'networkd']).optional(),
	ethernets: z.record(z.string(), card).optional()
});
/** Names that a socket for a cable gets. Source: systemd.net-naming-scheme(7); the kernel's own eth0. */
const USUAL_NAMES = ['eth0', 'end0', 'enp1s0'];

/** What a cloud-init network-config does with a cable: whether it asks for an address on one. Source: cloud-init, Networking config Version 2. */
interface NetworkConfig {
	readonly asksOnCable: boolean;
	readonly unknown: readonly string[];
}

/** Reads YAML, or throws; handed in, for the package is large and pages do without it. */
export type ParseYaml = (text: string, options: { readonly maxAliasCount: number }) => unknown;

/** Faults: `network-config-yaml`, `network-config-shape`. */
export function readNetworkConfig(text: string, parse: ParseYaml): Result<NetworkConfig> {
	let value: unknown;
	try {
		value = parse(text.slice(0, 65_536), { maxAliasCount: 0 });
	} catch (error) {
		return fault('network-config-yaml', `network-config cannot be read: ${(error as Error).message.split('\n')[0]}`);
	}
	const parsed = safely(config, value);
	if (!parsed.success) {
		const [issue] = parsed.error.issues;
		return fault('network-config-shape', `network-config: ${issue!.path.join('.')}: ${issue!.message}`);
	}
	const ethernets = Object.entries(parsed.data.ethernets ?? {});
	const meets = (name: string, pattern: string | undefined): boolean =>
		pattern === undefined
			? USUAL_NAMES.includes(name)
			: USUAL_NAMES.some((usual) =>
					pattern.endsWith('*') ? usual.startsWith(pattern.slice(0, -1)) : usual === pattern
				);
	const extra = (object: object, known: z.ZodObject): string[] =>
		Object.keys(object).filter((key) => !(key in known.shape));
	return ok({
		asksOnCable: ethernets.some(([name, one]) => one.dhcp4 === true && meets(name, one.match?.name)),
		unknown: [...extra(parsed.data, config), ...ethernets.flatMap(([, one]) => extra(one, card))]
	});
}
