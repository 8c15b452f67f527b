#!/bin/sh
# screen.sh FROM UNTIL HOW [IS_ON]: the screen on from FROM until UNTIL (HHMM), else off, by HOW: cec0 (the adapter's number), socket, signal.
# IS_ON: a program that fails while nothing is on; the screen is off then too.
from=$1
until=$2
how=$3
now=${YPHOS_TIME:-$(date +%H%M)}
on=''
if [ "$from" -lt "$until" ]; then
	if [ "$now" -ge "$from" ] && [ "$now" -lt "$until" ]; then on=yes; fi
elif [ "$now" -ge "$from" ] || [ "$now" -lt "$until" ]; then
	on=yes
fi
if [ "$on" ] && [ "$4" ]; then "$4" || on=''; fi
player=yphos-player.service
adapter=${how#cec}
# Where this board stands in the tree of cables, as the set tells it: f.f.f.f while the set is not there.
address() {
	cec-ctl -d "$adapter" --playback | while read -r line; do
		case $line in 'Physical Address'*) echo "${line##*: }" ;; esac
	done
}
if [ "$how" = "cec$adapter" ]; then
	at=$(address)
	if [ "$on" ]; then
		cec-ctl -d "$adapter" --to 0 --image-view-on >/dev/null
		tries=5
		while [ "${at:-f.f.f.f}" = f.f.f.f ] && [ "$tries" -gt 0 ]; do
			sleep 2
			at=$(address)
			tries=$((tries - 1))
		done
		# Then it shows this input, whichever it showed before.
		cec-ctl -d "$adapter" --active-source "phys-addr=$at" >/dev/null
	else
		cec-ctl -d "$adapter" --to 0 --standby >/dev/null
	fi
elif [ "$how" = socket ]; then
	if [ "$on" ]; then systemctl start yphos-socket.service; else systemctl stop yphos-socket.service; fi
elif [ "$on" ]; then
	echo 0 >/sys/class/graphics/fb0/blank
	systemctl --no-block start "$player"
else
	# Who draws keeps the output on: the player first, then the signal.
	systemctl stop "$player"
	echo 4 >/sys/class/graphics/fb0/blank
fi
if [ "$on" ]; then echo "screen on"; else echo "screen off"; fi
