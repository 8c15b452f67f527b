#!/bin/sh
# pair.sh [SECONDS]: phones may pair now, for three minutes unless told otherwise; those that did may come back at any time.
seconds=${1:-180}
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
echo "Choose \"$(bluetoothctl show | sed -n 's/^\tAlias: //p')\" on the phone within $seconds seconds."
sleep "$seconds"
