#!/bin/sh
# control.sh ACTION: does what a key or a phone asks for. What the player is told stands in actions.txt.
actions=${YPHOS_ACTIONS:-/opt/yphos/keys/actions.txt}
by_hand=${YPHOS_BY_HAND:-/run/yphos-show/now}
while read -r action command; do
	[ "$action" = "$1" ] || continue
	printf '{"command":%s}\n' "$command" | socat - UNIX-CONNECT:/var/lib/yphos/player.sock >/dev/null
	exit
done <"$actions"
case $1 in
show-*) [ ! -e "$by_hand" ] || printf '%s %s\n' "${1#show-}" "$(($(date +%s) + 1800))" >"$by_hand" ;;
back-to-rules) [ ! -e "$by_hand" ] || echo 'none 0' >"$by_hand" ;;
restart) systemctl restart yphos-player.service ;;
shut-down) systemctl poweroff ;;
*) echo "unknown: $1" >&2 ;;
esac
