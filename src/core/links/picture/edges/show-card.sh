#!/bin/bash
# show-card.sh CARD [bare]: shows a test card until Enter is pressed. bare: without the margins, as when edges are read.
cards=/opt/yphos/cards
if [[ ! -e $cards/$1.png ]]; then
	echo "Which card? There are, in $cards:" >&2
	ls "$cards" >&2
	exit 1
fi
# A card is drawn for the panel as it is, however pictures are turned on it.
options=(--image-display-duration=inf --loop-file=inf --no-audio --video-rotate=0)
if [[ ${2:-} == bare ]]; then
	for side in left right top bottom; do options+=("--video-margin-ratio-$side=0"); done
fi
systemctl stop yphos-player.service
mpv "${options[@]}" "$cards/$1.png" &
read -r -p "Shown on the screen. Press Enter to go back to what plays."
kill $!
wait || true
systemctl start yphos-player.service
