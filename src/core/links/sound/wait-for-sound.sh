#!/bin/sh
# wait-for-sound.sh CARD SECONDS: returns as soon as the sound card can be used; fails when it stays away.
tries=$(($2 * 5))
while [ "$tries" -gt 0 ]; do
	for id in /proc/asound/card*/id; do
		number=${id#/proc/asound/card}
		[ -r "$id" ] && read -r name <"$id" && [ "$name" = "$1" ] && [ -w "/dev/snd/controlC${number%/id}" ] && exit 0
	done
	sleep 0.2
	tries=$((tries - 1))
done
echo "the sound card $1 is not there" >&2
exit 1
