import { PLAYER_UNIT } from '../../files/cardFile';

/**
 * The fixed parts of apply.sh and verify.sh. Between them stand one `place`, `package` or `enable` line for each thing wanted.
 * `place` only notes its file; nothing is touched before every file has been found whole.
 */
export const APPLY_BEGIN = `#!/bin/bash
# Puts this card set in place. Run it again at any time: what is right already is left alone.
set -euo pipefail
here=$(cd "$(dirname "\${BASH_SOURCE[0]}")" && pwd)
kept=/var/lib/yphos-card
files=() packages=() units=() overlays=() folders=() early=() rebuild='' changed=

for tool in sha256sum cut cmp stat install mv grep sort systemctl dpkg dpkg-query; do
	command -v "$tool" >/dev/null || { echo "$tool is missing on this system, and nothing can be put in place without it." >&2; exit 1; }
done
[[ $EUID -eq 0 ]] || { echo "Run it as the administrator: sudo bash $0" >&2; exit 1; }

# A root below a layer in memory forgets what is done here. It is done below, where it stays, and counts from the restart.
below=/media/root-ro
if [[ $(findmnt -n -o FSTYPE /) == overlay && -d $below ]]; then
	bound=()
	trap 'for at in "\${bound[@]}"; do umount "$at"; done' EXIT
	for at in /dev "$(findmnt -n -o TARGET -T "$here")"; do
		mountpoint -q "$below$at" || { mount --bind "$at" "$below$at"; bound+=("$below$at"); }
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

place() { # MODE OWNER SHA256 PATH
	if [[ $(sha256sum <"$here/root/$4" | cut -c1-64) != "$3" ]]; then
		echo "The copy of $4 on the card is damaged. Copy the card set again." >&2
		exit 1
	fi
	files+=("$1" "$2" "$4")
}
beside_of() { printf '/%s/.%s.yphos-new' "\${1%/*}" "\${1##*/}"; }
package() { # one that was left half-way counts as missing
	[[ $(dpkg-query -W -f '\${db:Status-Status}' "$1" 2>/dev/null) == installed ]] || packages+=("$1")
}
enable() { units+=("$1"); }
overlay() { overlays+=("$1"); }
folder() { folders+=("$1" "$2"); } # OWNER PATH
ramdisk() { early+=("$1"); } # PATH of a file that the kernel needs before the root is there
`.split('\n');

/** The lines of apply.sh after the lists of packages, files and units. */
export const APPLY_END = `
mkdir -p "$kept"
# Packages first: a file of theirs that stood there already would make dpkg ask, and nobody is there to answer.
dpkg --configure -a --force-confdef --force-confold
if ((\${#packages[@]})); then
	nmcli connection reload 2>/dev/null || true
	if command -v nm-online >/dev/null; then nm-online --quiet --timeout=60 || true; fi
	# A board without a battery begins years behind, and the archive refuses an old clock.
	for ((try = 0; try < 180; try++)); do
		[[ $(timedatectl show --property=NTPSynchronized --value 2>/dev/null) != no ]] && break
		((try)) || echo "waiting for the time from the network, three minutes at most"
		sleep 1
	done
	apt=(apt-get -o APT::Update::Error-Mode=any -o DPkg::Lock::Timeout=300 -o Acquire::Retries=3
		-o Dpkg::Options::=--force-confdef -o Dpkg::Options::=--force-confold)
	export DEBIAN_FRONTEND=noninteractive
	"\${apt[@]}" update
	"\${apt[@]}" install -y --no-install-recommends "\${packages[@]}"
	"\${apt[@]}" clean
	changed=1
fi
if [[ -e $here/setup.sh ]]; then
	code=0
	bash "$here/setup.sh" || code=$?
	((code == 0 || code == 10)) || exit "$code"
	if ((code == 10)); then changed=1; fi
fi
: >"$kept/wanted"
for ((i = 0; i < \${#files[@]}; i += 3)); do printf '%s\\n' "\${files[i + 2]}" >>"$kept/wanted"; done
# What may be placed is written down before any of it is: a run that is cut off leaves nothing behind that nobody knows of.
touch "$kept/placed"
sort -u "$kept/wanted" "$kept/placed" >"$kept/placed.new"
mv "$kept/placed.new" "$kept/placed"
for ((i = 0; i < \${#files[@]}; i += 3)); do
	mode=\${files[i]} owner=\${files[i + 1]} path=\${files[i + 2]} beside=$(beside_of "\${files[i + 2]}")
	if ! cmp -s "$here/root/$path" "/$path" || [[ $(stat -c '%04a %U:%G' "/$path") != "$mode $owner" ]]; then
		# Beside it first, then in its place at once: a full or torn card never leaves half a file.
		if ! install -D -m "$mode" -o "\${owner%:*}" -g "\${owner#*:}" "$here/root/$path" "$beside"; then
			rm -f -- "$beside"
			echo "/$path could not be written; what was there is as it was. Is the card full?" >&2
			exit 1
		fi
		mv -f -- "$beside" "/$path"
		echo "placed /$path"
		changed=1
		for needed in "\${early[@]}"; do
			if [[ $needed == "/$path" ]]; then rebuild=1; fi
		done
	fi
done
for ((i = 0; i < \${#folders[@]}; i += 2)); do
	if [[ $(stat -c '%04a %U' "\${folders[i + 1]}" 2>/dev/null) != "0755 \${folders[i]}" ]]; then
		install -d -m 0755 -o "\${folders[i]}" -- "\${folders[i + 1]}"
	fi
done
# What an earlier card set placed and this one no longer has, goes; its units first.
while IFS= read -r path; do
	if ! grep -qxF -- "$path" "$kept/wanted"; then
		case $path in
		etc/systemd/system/*.service | etc/systemd/system/*.timer) systemctl disable --now -- "\${path##*/}" || true ;;
		esac
		rm -f -- "/$path" "$(beside_of "$path")"
		echo "removed /$path"
		changed=1
	fi
done <"$kept/placed"
mv "$kept/wanted" "$kept/placed"

# A board learns of an add-on without a memory of its own from its start file: one block of ours, at the end.
start=\${here%/*}/config.txt
if [[ -e $start ]] && { ((\${#overlays[@]})) || grep -qxF '# yphos begin' "$start"; }; then
	ours=
	while IFS= read -r line || [[ $line ]]; do
		if [[ $line == '# yphos begin' ]]; then ours=1; fi
		if [[ ! $ours ]]; then printf '%s\\n' "$line"; fi
		if [[ $line == '# yphos end' ]]; then ours=; fi
	done <"$start" >"$start.new"
	if ((\${#overlays[@]})); then
		printf '# yphos begin\\n[all]\\n' >>"$start.new"
		printf 'dtoverlay=%s\\n' "\${overlays[@]}" >>"$start.new"
		printf '# yphos end\\n' >>"$start.new"
	fi
	if cmp -s "$start.new" "$start"; then
		rm -f -- "$start.new"
	else
		mv -f -- "$start.new" "$start"
		echo "changed $start"
		changed=1
	fi
elif ((\${#overlays[@]})); then
	echo "$start is not there: this board starts another way. Choose it under Card, or name the overlay by hand." >&2
fi

if [[ $rebuild ]] && command -v update-initramfs >/dev/null; then
	update-initramfs -u
fi

systemctl daemon-reload
for unit in "\${units[@]}"; do
	systemctl is-enabled --quiet -- "$unit" 2>/dev/null || { systemctl enable -- "$unit"; changed=1; }
done
if [[ $changed ]]; then
	touch /run/yphos-restart
	echo "done: restart once"
else
	echo "done: nothing to change"
fi`.split('\n');

/** The lines of verify.sh before what the links ask. */
export const VERIFY_BEGIN = `#!/bin/bash
# Says whether this endpoint is as planned, then prints a probe report. Changes nothing.
here=$(cd "$(dirname "\${BASH_SOURCE[0]}")" && pwd)
wrong=0
check() { # LABEL COMMAND…
	if "\${@:2}" >/dev/null 2>&1; then
		printf 'ok    %s\\n' "$1"
	else
		printf 'WRONG %s\\n' "$1"
		wrong=1
	fi
}
has_digest() { # SHA256 PATH
	[[ $(sha256sum <"$2" | cut -c1-64) == "$1" ]]
}
check_playing() { # LABEL COMMAND…: only while the player runs; a gap between two titles is waited for
	systemctl is-active --quiet ${PLAYER_UNIT} || { printf -- '--    %s: the player rests now\\n' "$1"; return; }
	for ((try = 0; try < 20; try++)); do
		"\${@:2}" >/dev/null 2>&1 && break
		sleep 0.5
	done
	check "$@"
}
`.split('\n');

/** The lines of verify.sh after what the links ask. */
export const VERIFY_END = `
sh "$here/probe.sh"
exit $wrong`.split('\n');
