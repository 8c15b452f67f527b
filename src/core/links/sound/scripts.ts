/** Waits until the kernel lists a card and udev has let the group in to it, which comes a moment later. Source: Linux 6.1, sound/core/init.c, "id". */
export const WAIT_FOR_SOUND = `#!/bin/sh
# wait-for-sound.sh CARD SECONDS: returns as soon as the sound card can be used; fails when it stays away.
tries=$(($2 * 5))
while [ "$tries" -gt 0 ]; do
	for id in /proc/asound/card*/id; do
		number=\${id#/proc/asound/card}
		[ -r "$id" ] && read -r name <"$id" && [ "$name" = "$1" ] && [ -w "/dev/snd/controlC\${number%/id}" ] && exit 0
	done
	sleep 0.2
	tries=$((tries - 1))
done
echo "the sound card $1 is not there" >&2
exit 1`.split('\n');
