import type { Fields } from '../../manifest';
import type { NetworkSettings } from './settings';

export default {
	hostName: { label: 'Host name', words: 'name local address mdns' },
	way: { label: 'Connection', words: 'ethernet wifi wi-fi wlan cable network lan' },
	ssid: { label: 'Wi-Fi name', words: 'ssid wifi wlan network' },
	countryCode: { label: 'Country', words: 'wifi wlan regulatory' },
	radio: { label: 'Wi-Fi signal and channel', words: 'band level dbm interference antenna' },
	address: { label: 'Address', words: 'ip dhcp fixed static' },
	user: { label: 'User', words: 'account keeper login name' },
	login: { label: 'Sign-in', words: 'password ssh key login' },
	sshKeys: { label: 'SSH keys', words: 'public key login' },
	school: { label: 'Set up by', words: 'first boot seed hotspot screen' },
	fetchesNear: { label: 'It may fetch from this network, too', words: 'near private local feeds server' },
	guard: { label: 'Firewall', words: 'allowed addresses ranges block internet' },
	pages: { label: 'Pages that it serves', words: 'web interface port password' },
	updates: { label: 'Updates', words: 'security upgrade nightly apt' },
	locale: { label: 'Language', words: 'locale' },
	keyboard: { label: 'Keyboard', words: 'layout' }
} satisfies Fields<NetworkSettings>;
