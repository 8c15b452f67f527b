/**
 * With NoInputNoOutput the kernel accepts a phone that asks by itself, and the agent is only asked which services; it says yes to what
 * is paired. Sources: Linux 6.1, net/bluetooth/hci_event.c, hci_user_confirm_request_evt(); bluez-tools, lib/agent-helper.c; bluetoothctl(1).
 */
export const PAIR = `#!/bin/sh
# pair.sh [SECONDS]: phones may pair now, for three minutes unless told otherwise; those that did may come back at any time.
seconds=\${1:-180}
bt-agent --capability=NoInputNoOutput >/dev/null </dev/null &
agent=$!
finish() {
	code=$?
	trap - EXIT INT TERM
	kill "$agent" 2>/dev/null
	bluetoothctl discoverable off >/dev/null
	for address in $(bluetoothctl devices Paired | cut -d ' ' -f 2); do
		bluetoothctl trust "$address" >/dev/null && echo "$address may come back"
	done
	exit "$code"
}
trap finish EXIT INT TERM
bluetoothctl pairable on >/dev/null || exit 1
bluetoothctl discoverable-timeout "$seconds" >/dev/null
bluetoothctl discoverable on >/dev/null || exit 1
echo "Choose \\"$(bluetoothctl show | sed -n 's/^\\tAlias: //p')\\" on the phone within $seconds seconds."
sleep "$seconds"`.split('\n');

/** A program that plays holds a sound device open, by whatever way it came to it. Sources: proc(5), /proc/PID/fd; systemd's control groups. */
export const GIVE_WAY = `#!/bin/sh
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
done`.split('\n');
