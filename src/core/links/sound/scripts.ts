/** Waits until the kernel lists a card, then says so by its exit code. The rehearsal knows the same rule. */
export const WAIT_FOR_SOUND = `#!/bin/sh
# wait-for-sound.sh CARD SECONDS: returns as soon as the sound card is there; fails when it stays away.
tries=$(($2 * 5))
while [ "$tries" -gt 0 ]; do
	[ -e "/proc/asound/$1" ] && exit 0
	sleep 0.2
	tries=$((tries - 1))
done
echo "the sound card $1 is not there" >&2
exit 1`.split('\n');
