#!/bin/bash
# take.sh: takes what was sent into the card set, all of it or nothing, and puts the set in place. Above: where the set lies.
set -euo pipefail
sent=$(cd "$(dirname "${BASH_SOURCE[0]}")" && pwd)
set=${YPHOS_SET:-$set_at}
now=${YPHOS_CONTENT_NOW:-/var/lib/yphos-content/now}
stop() {
	echo "$1" >&2
	exit 1
}
[[ -e $set/apply.sh ]] || stop "No card set lies at $set: write the card first."
cd "$sent/set"
sha256sum --quiet --check "$sent/digests" || stop 'What was sent is damaged, and nothing was changed. Send it again.'
each() { while read -r _ path; do "$1" "$path"; done <"$sent/digests"; }
beside() { install -D -m 0755 "$1" "$set/$1.yphos-new"; }
clear() { rm -f "$set/$1.yphos-new"; }
take() { mv -f "$set/$1.yphos-new" "$set/$1"; }
trap 'each clear' EXIT
each beside || stop 'There is no room for it on the first partition, and nothing was changed.'
sync
each take
install -m 0755 "$sent/manifest.json" "$set/manifest.json.yphos-new"
mv -f "$set/manifest.json.yphos-new" "$set/manifest.json"
while IFS= read -r path; do rm -f "$set/$path"; done <"$sent/gone"
sync
# A service of its own: it goes on when the connection breaks.
systemd-run --quiet --wait --pipe --collect bash "$set/apply.sh"
begins=$(cat "$sent/begins")
if [[ $begins != nothing && -L $now ]]; then
	# What was sent is shown from now on, not a set that was fetched before it, nor one that waits to be shown.
	rm -f /var/lib/yphos-fetch/manifest.txt
	ln -sfn /opt/yphos "$now.new"
	mv -T "$now.new" "$now"
fi
if [[ $begins == player ]]; then
	systemctl try-restart yphos-player.service
	echo 'done: the player has begun anew'
fi
trap - EXIT
rm -rf "$sent"
