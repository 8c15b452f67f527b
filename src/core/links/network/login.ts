import type { SettingPath } from '../../link/setting';
import type { NetworkSettings } from './settings';

/** Whether the keeper logs in from afar by password. */
export const takesPassword = (network: NetworkSettings): boolean =>
	network.way !== 'none' && network.user !== '' && (network.login === 'password' || network.login === 'both');

/** Whether a password is asked for when the set is written: at its own screen, on an endpoint without a network, there is no other way in. */
export const needsPassword = (network: NetworkSettings): boolean =>
	network.way === 'none' ? network.user !== '' : takesPassword(network);

/** What decides whether there is a login at all. */
export const loginSetting = ({ way, user }: NetworkSettings): SettingPath =>
	way === 'none' ? 'network.way' : user === '' ? 'network.user' : 'network.login';
