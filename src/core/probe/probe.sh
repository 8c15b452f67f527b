#!/bin/sh
# Yphos probe: prints what this board's own tools say of it.
# It only reads, changes nothing, sends nothing, and needs no special rights.
# Run it with:  sh probe.sh > probe.txt     then paste or drop probe.txt into Yphos.
LC_ALL=C
export LC_ALL
PATH=$PATH:/usr/sbin:/sbin

section() { printf '\n=== %s ===\n' "$1"; }

run() { # COMMAND…: its output under its own heading
	section "$*"
	if command -v "$1" >/dev/null 2>&1; then
		"$@" 2>&1 || echo "(ended with code $?)"
	else
		echo "(not installed)"
	fi
}

show() { # FILE…: each readable file under its own heading
	for file in "$@"; do
		if [ -r "$file" ] && [ -f "$file" ]; then
			section "cat $file"
			tr -d '\000' <"$file" 2>&1
			echo
		fi
	done
}

hex() { # FILE…: a binary file as hexadecimal digits
	for file in "$@"; do
		if [ -r "$file" ] && [ "$(wc -c <"$file")" -gt 0 ]; then
			section "od $file"
			od -An -v -tx1 "$file"
		fi
	done
}

echo "=== yphos probe 1 ==="
date -u '+%Y-%m-%dT%H:%M:%SZ'

show /proc/device-tree/model /sys/class/dmi/id/product_name /etc/os-release /proc/meminfo /proc/version
run uname -m
run aplay -l
run aplay -L
show /proc/asound/cards /proc/asound/card*/stream* /proc/asound/card*/eld*
for card in /proc/asound/card[0-9]*; do
	[ -d "$card" ] && run amixer -c "${card##*card}"
done
for connector in /sys/class/drm/card*-*; do
	show "$connector/status" "$connector/modes"
	hex "$connector/edid"
done
run lsblk -J -b -o NAME,SIZE,TYPE,MOUNTPOINTS,RM,RO,TRAN,MODEL
run ip -j addr
for interface in /sys/class/net/*; do
	# A virtual or sleeping interface has no speed to read.
	if speed=$(cat "$interface/speed" 2>/dev/null); then
		section "cat $interface/speed"
		echo "$speed"
	fi
	[ -d "$interface/wireless" ] && run iw dev "${interface##*/}" link
done
show /sys/class/thermal/thermal_zone*/type /sys/class/thermal/thermal_zone*/temp
show /sys/class/hwmon/hwmon*/name /sys/class/hwmon/hwmon*/in*_alarm
show /sys/devices/platform/soc/soc:firmware/get_throttled
section "ls /dev/dvb"
ls /dev/dvb 2>/dev/null || echo "(none)"
run lsusb
echo
echo "=== end of probe ==="
