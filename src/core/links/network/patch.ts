import { changing } from '../../changes';
import type { Fix } from '../../link/finding';
import type { NetworkSettings } from './settings';

const own = changing<NetworkSettings>('network');

/** A fix that changes settings of the network. */
export const patch = (label: string, change: Partial<NetworkSettings>): Fix => ({
	label,
	apply: own(change)
});
