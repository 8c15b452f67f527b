#!/bin/sh
# may-sound.sh: succeeds outside the quiet hours listed in quiet-hours.txt, fails within them.
list=${YPHOS_QUIET_HOURS:-/opt/yphos/quiet-hours.txt}
today=${YPHOS_WEEKDAY:-$(date +%u)}
now=${YPHOS_TIME:-$(date +%H%M)}
yesterday=$(((today + 5) % 7 + 1))
while read -r days from until; do
	begun='' running=''
	case $days in *"$today"*) begun=yes ;; esac
	case $days in *"$yesterday"*) running=yes ;; esac
	if [ "$from" -lt "$until" ]; then
		[ "$begun" ] && [ "$now" -ge "$from" ] && [ "$now" -lt "$until" ] && exit 1
	else
		[ "$begun" ] && [ "$now" -ge "$from" ] && exit 1
		[ "$running" ] && [ "$now" -lt "$until" ] && exit 1
	fi
done <"$list"
exit 0
