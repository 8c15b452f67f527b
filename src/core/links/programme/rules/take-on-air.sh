#!/bin/sh
# take-on-air.sh: the player takes what is on now. Above: which player, what is done with it then, whether titles end first, what follows.
state=${YPHOS_STATE:-/var/lib/yphos-on-air}
[ -e "$state/changed" ] || exit 0
rm "$state/changed"
if [ "$player" ]; then
	# Whoever writes it is nobody in particular: no more of it is read than says whether there is something.
	is_on=$(head -c 1000 "$state/now.m3u8")
	if [ "$finishes" ]; then
		# What plays comes to its end by itself.
		[ -z "$is_on" ] || systemctl is-active --quiet "$player" || systemctl --no-block start "$player"
	elif [ "$is_on" ]; then
		systemctl --no-block "$begins" "$player"
	else
		systemctl --no-block stop "$player"
	fi
fi
[ -z "$follows" ] || systemctl --no-block start "$follows"
