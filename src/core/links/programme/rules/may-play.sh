#!/bin/sh
# may-play.sh: succeeds while something is on. Above: what says besides whether it may sound.
[ "$(cat "${YPHOS_STATE:-/var/lib/yphos-on-air}/now.m3u8")" ] || exit 1
[ -z "$sounds" ] || "$sounds"
