#!/bin/sh
# wait-for-screen.sh CONNECTOR SECONDS: succeeds as soon as the kernel finds a screen there, fails when it does not in time.
left=$2
while [ "$left" -gt 0 ]; do
	grep -qsx connected /sys/class/drm/card*-"$1"/status && exit 0
	left=$((left - 1))
	sleep 1
done
echo "no screen on $1 within $2 seconds"
exit 1
