#!/bin/sh
# page-alive.sh: begins the browser anew when its page has been silent for minutes.
missed=${YPHOS_MISSED:-/run/yphos-page-missed}
# While a new set is on trial, whoever tries it looks.
if [ -e /var/lib/yphos-content/trying ] || ! systemctl is-active --quiet yphos-player.service; then
	rm -f "$missed"
	exit 0
fi
if journalctl --quiet --unit yphos-player.service --since -150s --output cat | grep -qF yphos-page; then
	rm -f "$missed"
	exit 0
fi
times=1
[ ! -e "$missed" ] || times=$(($(cat "$missed") + 1))
if [ "$times" -lt 3 ]; then
	echo "$times" >"$missed"
	exit 0
fi
rm -f "$missed"
echo 'the page has been silent for minutes: the browser is begun anew' >&2
systemctl restart yphos-player.service
