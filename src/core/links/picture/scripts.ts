/** Waits until a screen is there, so that the player begins with a picture. */
export const WAIT_FOR_SCREEN = `#!/bin/sh
# wait-for-screen.sh CONNECTOR SECONDS: succeeds as soon as the kernel finds a screen there, fails when it does not in time.
left=$2
while [ "$left" -gt 0 ]; do
	grep -qsx connected /sys/class/drm/card*-"$1"/status && exit 0
	left=$((left - 1))
	sleep 1
done
echo "no screen on $1 within $2 seconds"
exit 1`.split('\n');

/** Puts what the kernel needs before the root is there into the initial RAM disk. Source: initramfs-tools(7), HOOK SCRIPTS. */
export const RAMDISK_HOOK = (path: string): string[] =>
	`#!/bin/sh
case $1 in prereqs)
	echo
	exit 0
	;;
esac
. /usr/share/initramfs-tools/hook-functions
copy_file firmware ${path}`.split('\n');

/** One test card on the endpoint's own screen until a key is pressed, then the player again. */
export const SHOW_CARD = `#!/bin/bash
# show-card.sh CARD [bare]: shows a test card until Enter is pressed. bare: without the margins, as when edges are read.
cards=/opt/yphos/cards
if [[ ! -e $cards/$1.png ]]; then
	echo "Which card? There are, in $cards:" >&2
	ls "$cards" >&2
	exit 1
fi
# A card is drawn for the panel as it is, however pictures are turned on it.
options=(--image-display-duration=inf --loop-file=inf --no-audio --video-rotate=0)
if [[ \${2:-} == bare ]]; then
	for side in left right top bottom; do options+=("--video-margin-ratio-$side=0"); done
fi
systemctl stop yphos-player.service
mpv "\${options[@]}" "$cards/$1.png" &
read -r -p "Shown on the screen. Press Enter to go back to what plays."
kill $!
wait || true
systemctl start yphos-player.service`.split('\n');

/** The screen by the hour. Source: cec-ctl(1); FB_BLANK_POWERDOWN is 4: the kernel's include/uapi/linux/fb.h. */
export const SCREEN_HOURS = `#!/bin/sh
# screen.sh FROM UNTIL HOW [IS_ON]: the screen on from FROM until UNTIL (HHMM), else off, by HOW: cec0 (the adapter's number), socket, signal.
# IS_ON: a program that fails while nothing is on; the screen is off then too.
from=$1
until=$2
how=$3
now=\${YPHOS_TIME:-$(date +%H%M)}
on=''
if [ "$from" -lt "$until" ]; then
	if [ "$now" -ge "$from" ] && [ "$now" -lt "$until" ]; then on=yes; fi
elif [ "$now" -ge "$from" ] || [ "$now" -lt "$until" ]; then
	on=yes
fi
if [ "$on" ] && [ "$4" ]; then "$4" || on=''; fi
player=yphos-player.service
adapter=\${how#cec}
# Where this board stands in the tree of cables, as the set tells it: f.f.f.f while the set is not there.
address() {
	cec-ctl -d "$adapter" --playback | while read -r line; do
		case $line in 'Physical Address'*) echo "\${line##*: }" ;; esac
	done
}
if [ "$how" = "cec$adapter" ]; then
	at=$(address)
	if [ "$on" ]; then
		cec-ctl -d "$adapter" --to 0 --image-view-on >/dev/null
		tries=5
		while [ "\${at:-f.f.f.f}" = f.f.f.f ] && [ "$tries" -gt 0 ]; do
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
if [ "$on" ]; then echo "screen on"; else echo "screen off"; fi`.split('\n');

/** Moves stills about by three pixels of 1000, another way each minute. Source: mpv(1), --video-pan-x; its Lua scripting. */
export const SHIFT_STILLS =
	`-- shift.lua: what stands still moves a little each minute, so that its edges do not wear into the panel.
local ways = { { 0, 0 }, { 1, 0 }, { 1, 1 }, { 0, 1 }, { -1, 1 }, { -1, 0 }, { -1, -1 }, { 0, -1 }, { 1, -1 } }
local now = 1
mp.add_periodic_timer(60, function()
	now = now % #ways + 1
	mp.set_property_number("video-pan-x", ways[now][1] * 0.003)
	mp.set_property_number("video-pan-y", ways[now][2] * 0.003)
end)`.split('\n');
