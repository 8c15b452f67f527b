#!/bin/sh
# asked.sh: does what the phone's page left word of, once each. Whatever else lies there goes.
for word in /run/yphos-asked/* /run/yphos-asked/.[!.]*; do
	name=${word##*/}
	[ -f "$word" ] || name=''
	rm -rf "$word"
	case $name in
	'' | *[!A-Za-z0-9_-]*) ;;
	*) /opt/yphos/bin/control.sh "$name" ;;
	esac
done
