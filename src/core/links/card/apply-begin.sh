#!/bin/bash
# Puts this card set in place. Run it again at any time: what is right already is left alone.
set -euo pipefail
here=$(cd "$(dirname "${BASH_SOURCE[0]}")" && pwd)
kept=/var/lib/yphos-card
files=() packages=() units=() overlays=() folders=() early=() arguments=() secrets=() leave='' changed=''

for tool in sha256sum cut cmp stat install mv grep sort systemctl dpkg dpkg-query; do
	command -v "$tool" >/dev/null || {
		echo "$tool is missing on this system, and nothing can be put in place without it." >&2
		exit 1
	}
done
[[ $EUID -eq 0 ]] || {
	echo "Run it as the administrator: sudo bash $0" >&2
	exit 1
}

# A root below a layer in memory forgets what is done here. It is done below, where it stays, and counts from the restart.
below=/media/root-ro
if [[ $(findmnt -n -o FSTYPE /) == overlay && -d $below ]]; then
	bound=()
	trap 'for at in "${bound[@]}"; do umount "$at"; done' EXIT
	for at in /dev "$(findmnt -n -o TARGET -T "$here")"; do
		mountpoint -q "$below$at" || {
			mount --bind "$at" "$below$at"
			bound+=("$below$at")
		}
	done
	if [[ ! -e $below$here/apply.sh ]]; then
		echo "Copy the card set onto the first partition of the card, and run it from there." >&2
		exit 1
	fi
	overlayroot-chroot bash "$here/apply.sh"
	# A file that was replaced while the layer still shows the old one keeps the card open.
	if [[ -w $below ]]; then
		echo "The card stays open for writing until the restart: do not cut the power before."
	fi
	exit
fi

release() { # VERSION_ID NAME: options of programs differ from one release to the next
	if [[ $(grep '^VERSION_ID=' /etc/os-release) != "VERSION_ID=\"$1\"" ]]; then
		echo "This card set is written for $2, and this system is another: $(grep '^PRETTY_NAME=' /etc/os-release)" >&2
		echo "Nothing was changed. Write an image of $2 to the card, and begin again." >&2
		exit 1
	fi
}
place() { # MODE OWNER SHA256 PATH [NAME-ON-THE-CARD]: only noted; nothing is touched before every file has been found whole
	local from="$here/${5-root/$4}" digest="$3"
	# Digests of what is secret stand in a file of their own. Where the plan says so, both leave the first partition once all is in place.
	if [[ $digest == - ]]; then digest=$(grep -F -- "  $4" "$here/secrets.txt" 2>/dev/null | cut -c1-64) || true; fi
	if [[ $3 == - && ! -e $here/secrets.txt && -e $kept/secrets-left && -e /$4 ]]; then
		from=/$4
	elif [[ ! -e $from ]] || [[ $(sha256sum <"$from" | cut -c1-64) != "$digest" ]]; then
		echo "The copy of $4 on the card is damaged. Copy the card set again." >&2
		exit 1
	fi
	files+=("$1" "$2" "$4" "$from")
}
beside_of() { printf '/%s/.%s.yphos-new' "${1%/*}" "${1##*/}"; }
package() { # one that was left half-way counts as missing
	[[ $(dpkg-query -W -f '${db:Status-Status}' "$1" 2>/dev/null) == installed ]] || packages+=("$1")
}
enable() { units+=("$1"); }
overlay() { overlays+=("$1"); }
# Of the kernel.
argument() { arguments+=("$1"); }
# OWNER PATH
folder() { folders+=("$1" "$2"); }
# PATH of a file that the kernel needs before the root is there.
ramdisk() { early+=("$1"); }
# FOLDER COMMAND…: only where that is the first partition, and knows no owners; on others its option would fail the start.
on_fat() {
	if [[ $here == "$1"/* && $(findmnt -n -o TARGET -T "$here") == "$1" && $(stat -f -c %T "$here") == msdos ]]; then "${@:2}"; fi
}
secret() { secrets+=("$1"); } # NAME-ON-THE-CARD
secrets_leave() { leave=yes; }
