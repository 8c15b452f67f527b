#!/bin/sh
# What the kernel needs before the root is there goes into the initial RAM disk. Above: which file.
case $1 in prereqs)
	echo
	exit 0
	;;
esac
. /usr/share/initramfs-tools/hook-functions
copy_file firmware "$file"
