import { lines, textFile } from '../../files/cardFile';
import { shellQuote, shellWord } from '../../formats/shell/quote';
import type { CardFile, CardLine, Context, Secrets } from '../../link';
import { readPublicKey } from '../../formats/ssh/publicKey';
import { loginSetting, needsPassword } from './login';
import type { NetworkSettings } from './settings';

/** apply.sh runs it, after the packages; it ends with 10 when something was not so yet. */
export const SETUP_PATH = 'boot/yphos/setup.sh';

const BEGIN = `#!/bin/bash
# What user-data asks for, on images that read none: name, time zone, user. What is so already is left alone.
set -euo pipefail
changed=0
did() {
	echo "set $1"
	changed=10
}`.split('\n');

/** The line of the old name goes with it; another line that has the new one as a whole word will do. Source: hosts(5); Debian Policy, 10.4. */
const HOST_NAME = `
old=$(cat /etc/hostname 2>/dev/null || true)
tab=$(printf '\\t')
known=
while read -r _ names; do
	for word in $names; do
		if [[ $word == "$name" ]]; then known=1; fi
	done
done </etc/hosts
if [[ ! $known || ( $old != "$name" && -n $old ) ]]; then
	grep -vxF -- "127.0.1.1$tab$old" /etc/hosts >/etc/hosts.yphos-new || true
	[[ $known ]] || printf '127.0.1.1\\t%s\\n' "$name" >>/etc/hosts.yphos-new
	chmod 0644 /etc/hosts.yphos-new
	mv -f /etc/hosts.yphos-new /etc/hosts
fi
if [[ $old != "$name" ]]; then
	printf '%s\\n' "$name" >/etc/hostname
	did 'the host name'
fi`.split('\n');

const TIME_ZONE = `
if [[ -e /usr/share/zoneinfo/$zone && $(readlink /etc/localtime) != */zoneinfo/"$zone" ]]; then
	ln -sf "/usr/share/zoneinfo/$zone" /etc/localtime
	printf '%s\\n' "$zone" >/etc/timezone
	did 'the time zone'
fi`.split('\n');

const USER = `
made=
if ! getent passwd "$user" >/dev/null; then
	useradd --create-home --shell /bin/bash --groups sudo,audio,video "$user"
	made=1
	did "the user $user"
fi`.split('\n');

/** A password that is there already was chosen at the image's own first start, or changed since. */
const PASSWORD = `if [[ $(getent shadow "$user") == "$user:"[!*]* ]]; then
	printf '%s\\n' "$user:$crypt" | chpasswd --encrypted
	did 'the password'
fi`.split('\n');

/** What this set gives. */
const GIVEN = `
given=/var/lib/yphos-card/keys
mkdir -p /var/lib/yphos-card
: >"$given.new"`.split('\n');

const KEYS = `may_use() { # KEY
	local folder=/home/$user/.ssh
	printf '%s\\n' "$user $1" >>"$given.new"
	grep -qxF -- "$1" "$folder/authorized_keys" 2>/dev/null && return
	mkdir -p "$folder"
	printf '%s\\n' "$1" >>"$folder/authorized_keys"
	chmod 0700 "$folder"
	chmod 0600 "$folder/authorized_keys"
	chown -R "$user:$user" "$folder"
	did 'a key'
}`.split('\n');

/** A key that somebody added there by hand was given by no set: it stays. */
const WITHDRAWN = `
if [[ -e $given ]]; then
	while read -r who key; do
		list=/home/$who/.ssh/authorized_keys
		if ! grep -qxF -- "$who $key" "$given.new" && grep -qxF -- "$key" "$list" 2>/dev/null; then
			grep -vxF -- "$key" "$list" >"$given.left" || true
			chmod 0600 "$given.left"
			chown "$who:$who" "$given.left"
			mv -f "$given.left" "$list"
			did 'the keys: one that an earlier set gave is taken back'
		fi
	done <"$given"
fi
mv -f "$given.new" "$given"`.split('\n');

/** The image's own rule for a user of its own stays; one who is made here, or by the seed, has this. */
const SUDO = `if [[ $made ]]; then
	printf '%s\\n' "$rule" >/etc/sudoers.d/yphos-keeper
	chmod 0440 /etc/sudoers.d/yphos-keeper
fi`.split('\n');

/** Without it an image that reads no seed, or is set up at a screen, would have neither key nor name: nobody could log in. */
export function setupFile(network: NetworkSettings, context: Context, secrets: Secrets): CardFile {
	const { user, hostName, login } = network;
	const byKey = network.way !== 'none' && (login === 'key' || login === 'both');
	const keys =
		byKey && user
			? network.sshKeys.flatMap((line) => {
					const key = readPublicKey(line);
					return key.ok ? [key.value.text] : [];
				})
			: [];
	const crypt = needsPassword(network) ? secrets.userPasswordCrypt : undefined;
	const rule = `${user} ${needsPassword(network) ? 'ALL=(ALL) ALL' : 'ALL=(ALL) NOPASSWD:ALL'}`;
	const content: CardLine[] = [
		...lines('network', ...BEGIN),
		...lines('network.hostName', '', `name=${shellWord(hostName)}`, ...HOST_NAME.slice(1)),
		...lines('network', '', `zone=${shellWord(context.venue.timeZone)}`, ...TIME_ZONE.slice(1)),
		...(user
			? [
					...lines('network.user', '', `user=${shellWord(user)}`, ...USER.slice(1)),
					...(crypt
						? [
								{ text: `crypt=${shellQuote(crypt)}`, setting: loginSetting(network), secret: true } as const,
								...lines(loginSetting(network), ...PASSWORD)
							]
						: []),
					...lines(loginSetting(network), `rule=${shellQuote(rule)}`, ...SUDO)
				]
			: []),
		...lines('network', ...GIVEN),
		...(keys.length ? lines('network.sshKeys', ...KEYS, ...keys.map((key) => `may_use ${shellQuote(key)}`)) : []),
		...lines('network', ...WITHDRAWN),
		...lines('network', '', 'exit "$changed"')
	];
	return textFile(SETUP_PATH, 'Sets what user-data asks for, where the image reads none.', content, '0755');
}
