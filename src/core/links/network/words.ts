import type { Words } from '../../engines/machine';

/** The network's events in words, by code. */
export const NETWORK_WORDS = {
	'radio-joined': ({ address }: { address: string }) => ['Wi-Fi network joined', address],
	'cable-joined': ({ address }: { address: string }) => [
		address ? 'Cable joined' : 'Address taken on the cable',
		address
	],
	'not-yet': () => 'The network is not there yet',
	gone: () => 'Network gone',
	back: () => 'Network back',
	'no-cable': () => 'No cable leads to the endpoint',
	'no-radio': () => 'There is no Wi-Fi network on this bench',
	'no-such-radio': ({ ssid }: { ssid: string }) => `No Wi-Fi network is called "${ssid}"`,
	'key-refused': ({ ssid }: { ssid: string }) => `The Wi-Fi network "${ssid}" refuses the key`,
	'no-manager': () => 'Nothing on the endpoint reads its network profile: NetworkManager is not there',
	'profile-open': ({ mode }: { mode: string }) =>
		`The network profile is passed over: its mode ${mode} lets others read it`,
	'profile-unusable': () => 'The network profile names no kind of connection',
	'config-unusable': () => 'network-config asks for no address on any socket',
	'config-unreadable': ({ why }: { why: string }) => why,
	'rules-refused': ({ why }: { why: string }) => `nftables.service fails, and everything is let in: ${why}`,
	'no-dns': () => 'The profile names no server for names: nothing can be found by name',
	'drops-answers': () => 'The rules drop the answers to what the endpoint itself asks: nothing outside can be reached',
	'drops-own': () => 'The rules keep the endpoint\u2019s own programs from each other',
	'drops-icmp': () => 'The rules drop what the network tells of errors and neighbours',
	'drops-dhcp': () => 'The rules drop the router\u2019s answers about addresses',
	'no-network': () => 'no network',
	joined: () => 'on the network',
	named: ({ name }: { name: string }) => ['Found by name', name],
	visit: ({ from, port, answer }: { from: string; port: number; answer: string }) =>
		`${from} at port ${port}: ${answer}`,
	'visit-at-screen': ({ from, answer }: { from: string; answer: string }) => `${from} ${answer}`,
	'updates-none': () => 'No updates: the network is not there',
	'updates-any-hour': () => 'The package\u2019s own timer brings updates as well, at any hour',
	'updates-in': () => 'Security updates are in'
} as const satisfies Words;

export default NETWORK_WORDS;
