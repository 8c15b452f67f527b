#!/bin/bash
# setup.sh: what user-data asks for, on images that read none: name, time zone, user. What is so already is left alone.
set -euo pipefail
changed=0
did() {
	echo "set $1"
	changed=10
}

# The line of the old name goes with it; another line that has the new one as a whole word will do.
old=$(cat /etc/hostname 2>/dev/null || true)
tab=$(printf '\t')
known=
while read -r _ names; do
	for word in $names; do
		if [[ $word == "$name" ]]; then known=1; fi
	done
done </etc/hosts
if [[ ! $known || ($old != "$name" && -n $old) ]]; then
	grep -vxF -- "127.0.1.1$tab$old" /etc/hosts >/etc/hosts.yphos-new || true
	[[ $known ]] || printf '127.0.1.1\t%s\n' "$name" >>/etc/hosts.yphos-new
	chmod 0644 /etc/hosts.yphos-new
	mv -f /etc/hosts.yphos-new /etc/hosts
fi
if [[ $old != "$name" ]]; then
	printf '%s\n' "$name" >/etc/hostname
	did 'the host name'
fi

if [[ -e /usr/share/zoneinfo/$zone && $(readlink /etc/localtime) != */zoneinfo/"$zone" ]]; then
	ln -sf "/usr/share/zoneinfo/$zone" /etc/localtime
	printf '%s\n' "$zone" >/etc/timezone
	did 'the time zone'
fi

if [[ $user ]]; then
	made=
	if ! getent passwd "$user" >/dev/null; then
		useradd --create-home --shell /bin/bash --groups sudo,audio,video "$user"
		made=1
		did "the user $user"
	fi
	# A password that is there already was chosen at the image's own first start, or changed since.
	if [[ $crypt && $(getent shadow "$user") == "$user:"[!*]* ]]; then
		printf '%s\n' "$user:$crypt" | chpasswd --encrypted
		did 'the password'
	fi
	# The image's own rule for a user of its own stays; one who is made here, or by the seed, has this.
	if [[ $made ]]; then
		printf '%s\n' "$rule" >/etc/sudoers.d/yphos-keeper
		chmod 0440 /etc/sudoers.d/yphos-keeper
	fi
fi

# What this set gives. A key that somebody added there by hand was given by no set: it stays.
given=/var/lib/yphos-card/keys
mkdir -p /var/lib/yphos-card
: >"$given.new"
for key in "${keys[@]}"; do
	folder=/home/$user/.ssh
	printf '%s\n' "$user $key" >>"$given.new"
	if grep -qxF -- "$key" "$folder/authorized_keys" 2>/dev/null; then continue; fi
	mkdir -p "$folder"
	printf '%s\n' "$key" >>"$folder/authorized_keys"
	chmod 0700 "$folder"
	chmod 0600 "$folder/authorized_keys"
	chown -R "$user:$user" "$folder"
	did 'a key'
done
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
mv -f "$given.new" "$given"

exit "$changed"
