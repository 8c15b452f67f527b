#!/bin/sh
# give-way.sh PLAYER UNIT...: PLAYER is stopped while one of the units has a sound device open, and started afterwards.
player=$1
shift
sounds() {
	for unit; do
		group=/sys/fs/cgroup/system.slice/$unit/cgroup.procs
		[ -r "$group" ] || continue
		while read -r process; do
			[ -n "$(find "/proc/$process/fd" -lname '/dev/snd/pcm*' 2>/dev/null)" ] && return 0
		done <"$group"
	done
	return 1
}
rests=false
silent=0
while sleep 1; do
	if sounds "$@"; then
		silent=0
		if systemctl --quiet is-active "$player"; then
			rests=true
			systemctl stop "$player"
		fi
	elif $rests; then
		silent=$((silent + 1))
		if [ "$silent" -ge 3 ]; then
			rests=false
			systemctl start "$player"
		fi
	fi
done
