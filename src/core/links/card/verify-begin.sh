#!/bin/bash
# Says whether this endpoint is as planned, then prints a probe report. Changes nothing.
here=$(cd "$(dirname "${BASH_SOURCE[0]}")" && pwd)
wrong=0
check() { # LABEL COMMAND…
	if "${@:2}" >/dev/null 2>&1; then
		printf 'ok    %s\n' "$1"
	else
		printf 'WRONG %s\n' "$1"
		wrong=1
	fi
}
has_digest() { # SHA256 PATH
	[[ $(sha256sum <"$2" | cut -c1-64) == "$1" ]]
}
check_playing() { # LABEL COMMAND…: only while the player runs; a gap between two titles is waited for
	systemctl is-active --quiet yphos-player.service || {
		printf -- '--    %s: the player rests now\n' "$1"
		return
	}
	for ((try = 0; try < 20; try++)); do
		"${@:2}" >/dev/null 2>&1 && break
		sleep 0.5
	done
	check "$@"
}
