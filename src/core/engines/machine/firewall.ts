import type { Result } from '../../basics/result';
import { readNftables, type NftRules } from '../../formats/nftables/nftables';
import type { Machine } from './machine';

/** What nftables.service loads. Source: Debian 12, nftables.service. */
const RULES_PATH = '/etc/nftables.conf';

/** The rules that are in force: null where nothing loads any; faults where nft refuses the file, and everything comes in. */
export function rulesOf({ disk }: Pick<Machine, 'disk'>): Result<NftRules> | null {
	const file = disk.enabled.includes('nftables.service') ? disk.get(RULES_PATH) : undefined;
	return file && !file.stub ? readNftables(file.text) : null;
}

/** Whether something that comes in is let in. */
export function letsIn(machine: Pick<Machine, 'disk'>, packet: Parameters<NftRules['accepts']>[0]): boolean {
	const rules = rulesOf(machine);
	return !rules?.ok || rules.value.accepts(packet);
}
