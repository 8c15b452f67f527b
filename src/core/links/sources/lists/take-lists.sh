#!/bin/sh
# take-lists.sh: the player takes lists that have changed.
lists=${YPHOS_LISTS:-/var/lib/yphos-lists}
[ -e "$lists/changed" ] || exit 0
rm "$lists/changed"
systemctl --no-block try-restart yphos-player.service
