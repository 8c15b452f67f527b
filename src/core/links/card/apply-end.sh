mkdir -p "$kept"
# What is owed is written down before what it is owed for, and stands there until it is done: no cut and no kill loses it.
boot=$(cat /proc/sys/kernel/random/boot_id)
owe_restart() {
	changed=1
	[[ $(cat "$kept/owed-restart" 2>/dev/null) == "$boot" ]] || printf '%s\n' "$boot" >"$kept/owed-restart"
}
note() { # LIST LINE…: the list anew, all of it or nothing
	local list=$kept/$1
	shift
	if (($#)); then printf '%s\n' "$@" | sort -u >"$list.new"; else : >"$list.new"; fi
	mv -f -- "$list.new" "$list"
}
for list in placed made early arguments; do
	[[ -e $kept/$list ]] || : >"$kept/$list"
done
is_in() { # WORD WORD…: whether the first is among the others
	local word=$1 one
	shift
	for one in "$@"; do
		if [[ $one == "$word" ]]; then return 0; fi
	done
	return 1
}
is_unit() { # PATH
	case $1 in
	etc/systemd/system/*/*) return 1 ;;
	etc/systemd/system/*) return 0 ;;
	esac
	return 1
}
# Others may hold the locks of apt and dpkg: an image's own updates at its first start, or a person. They are waited for.
patiently() { # COMMAND…
	local try code said
	for ((try = 0; ; try++)); do
		code=0
		LC_ALL=C "$@" 2>"$kept/said" || code=$?
		said=$(cat "$kept/said")
		case $said in
		*'get lock'* | *'frontend lock'* | *'was locked by'*) ;;
		*)
			[[ -z $said ]] || printf '%s\n' "$said" >&2
			return "$code"
			;;
		esac
		if ((try == 60)); then
			echo 'The locks of apt and dpkg were held for ten minutes. See what holds them, or restart; then run this again.' >&2
			return 1
		fi
		((try)) || echo 'another program is installing: waiting for it, ten minutes at most'
		sleep 10
	done
}

# Packages first: a file of theirs that stood there already would make dpkg ask, and nobody is there to answer.
patiently dpkg --configure -a --force-confdef --force-confold
if ((${#packages[@]})); then
	nmcli connection reload 2>/dev/null || true
	if command -v nm-online >/dev/null; then nm-online --quiet --timeout=60 || true; fi
	# A board without a battery begins years behind, and the archive refuses an old clock.
	for ((try = 0; try < 180; try++)); do
		[[ $(timedatectl show --property=NTPSynchronized --value 2>/dev/null) != no ]] && break
		((try)) || echo "waiting for the time from the network, three minutes at most"
		sleep 1
	done
	apt=(apt-get -o APT::Update::Error-Mode=any -o Acquire::Retries=3
		-o Dpkg::Options::=--force-confdef -o Dpkg::Options::=--force-confold)
	export DEBIAN_FRONTEND=noninteractive
	owe_restart
	patiently "${apt[@]}" update
	patiently "${apt[@]}" install -y --no-install-recommends "${packages[@]}"
	patiently "${apt[@]}" clean || true
fi
if [[ -e $here/setup.sh ]]; then
	# Cut off within it, nobody knows what it had changed.
	[[ ! -e $kept/setting-up ]] || owe_restart
	: >"$kept/setting-up"
	code=0
	bash "$here/setup.sh" || code=$?
	((code == 0 || code == 10)) || exit "$code"
	if ((code == 10)); then owe_restart; fi
	rm -f -- "$kept/setting-up"
fi

wanted=() placed=() made=()
folders_above() { # PATH: those that are not there yet
	local at=${1%/*}
	while [[ $at == */* && ! -d /$at ]]; do
		made+=("$at")
		at=${at%/*}
	done
}
for ((i = 0; i < ${#files[@]}; i += 4)); do
	wanted+=("${files[i + 2]}")
	folders_above "${files[i + 2]}"
done
for ((i = 0; i < ${#folders[@]}; i += 2)); do folders_above "${folders[i + 1]#/}/"; done
# What may be placed is written down before any of it is: a run that is cut off leaves nothing behind that nobody knows of.
while IFS= read -r path; do placed+=("$path"); done <"$kept/placed"
while IFS= read -r path; do made+=("$path"); done <"$kept/made"
while IFS= read -r path; do early+=("$path"); done <"$kept/early"
note placed "${placed[@]}" "${wanted[@]}"
note made "${made[@]}"
note early "${early[@]}"
note wanted "${wanted[@]}"
for ((i = 0; i < ${#files[@]}; i += 4)); do
	mode=${files[i]} owner=${files[i + 1]} path=${files[i + 2]} from=${files[i + 3]} beside=$(beside_of "${files[i + 2]}")
	if ! cmp -s "$from" "/$path" || [[ $(stat -c '%04a %U:%G' "/$path") != "$mode $owner" ]]; then
		owe_restart
		if is_in "/$path" "${early[@]}"; then : >"$kept/owed-ramdisk"; fi
		# Beside it first, then in its place at once: a full or torn card never leaves half a file.
		if ! install -D -m "$mode" -o "${owner%:*}" -g "${owner#*:}" "$from" "$beside"; then
			rm -f -- "$beside"
			echo "/$path could not be written; what was there is as it was. Is the card full?" >&2
			exit 1
		fi
		mv -f -- "$beside" "/$path"
		echo "placed /$path"
	fi
done
for ((i = 0; i < ${#folders[@]}; i += 2)); do
	if [[ $(stat -c '%04a %U' "${folders[i + 1]}" 2>/dev/null) != "0755 ${folders[i]}" ]]; then
		install -d -m 0755 -o "${folders[i]}" "${folders[i + 1]}"
	fi
done

# Units that an earlier set began with the board and this one does not; their files may stay.
enabled=()
if [[ -e $kept/enabled ]]; then
	while IFS= read -r unit; do enabled+=("$unit"); done <"$kept/enabled"
else
	# Before that list was kept, whatever was placed may have been enabled.
	for path in "${placed[@]}"; do
		if is_unit "$path"; then enabled+=("${path##*/}"); fi
	done
fi
for unit in "${enabled[@]}"; do
	if ! is_in "$unit" "${units[@]}" && [[ $(systemctl is-enabled -- "$unit" 2>/dev/null) == enabled ]]; then
		owe_restart
		systemctl disable -- "$unit" || true
		echo "no longer begins with the board: $unit"
	fi
done
# What an earlier card set placed and this one no longer has, goes; what runs of it first.
grep -vxF -f "$kept/wanted" "$kept/placed" >"$kept/gone" || true
while IFS= read -r path; do
	owe_restart
	if is_in "/$path" "${early[@]}"; then : >"$kept/owed-ramdisk"; fi
	if is_unit "$path"; then systemctl disable --now -- "${path##*/}" || true; fi
	rm -f -- "/$path" "$(beside_of "$path")"
	echo "removed /$path"
done <"$kept/gone"
# Folders that were made for what has gone.
left=()
sort -r "$kept/made" >"$kept/gone"
while IFS= read -r path; do
	if is_in "/$path" "${folders[@]}"; then
		left+=("$path")
	elif [[ -d /$path ]] && ! rmdir -- "/$path" 2>/dev/null; then
		left+=("$path")
	fi
done <"$kept/gone"
note made "${left[@]}"
rm -f -- "$kept/gone" "$kept/said"
mv -f -- "$kept/wanted" "$kept/placed"

# The first partition knows no journal: what is to take the place of the other is on the card before it does.
anew() { # FILE, by FILE.new where that is another
	if cmp -s "$1.new" "$1"; then
		rm -f -- "$1.new"
		return
	fi
	owe_restart
	sync
	mv -f -- "$1.new" "$1"
	echo "changed $1"
}
# A board learns of an add-on without a memory of its own from its start file: one block of ours, at the end.
start=${here%/*}/config.txt
if [[ -e $start ]] && { ((${#overlays[@]})) || grep -qxF '# yphos begin' "$start"; }; then
	ours=
	while IFS= read -r line || [[ $line ]]; do
		if [[ $line == '# yphos begin' ]]; then ours=1; fi
		if [[ ! $ours ]]; then printf '%s\n' "$line"; fi
		if [[ $line == '# yphos end' ]]; then ours=; fi
	done <"$start" >"$start.new"
	if ((${#overlays[@]})); then
		printf '# yphos begin\n[all]\n' >>"$start.new"
		printf 'dtoverlay=%s\n' "${overlays[@]}" >>"$start.new"
		printf '# yphos end\n' >>"$start.new"
	fi
	anew "$start"
elif ((${#overlays[@]})); then
	echo "$start is not there: this board starts another way. Choose it under Card, or name the overlay by hand." >&2
fi

# What the kernel is told: what an earlier set had added and this one does not goes, and what a set that was sent wants comes.
gone=()
while IFS= read -r word; do
	is_in "$word" "${arguments[@]}" || gone+=("$word")
done <"$kept/arguments"
told() { # LINE: the same with what is wanted and without what has gone
	local line=" $1 " word
	for word in "${gone[@]}"; do line=${line//" $word "/ }; done
	for word in "${arguments[@]}"; do
		[[ $line == *" $word "* ]] || line="$line$word "
	done
	line=${line% }
	printf '%s\n' "${line# }"
}
tell_kernel() { # the file by which this board starts
	local start line words first blank
	blank=$(printf ' \t')
	for start in "${here%/*}/cmdline.txt" "${here%/*}/extlinux/extlinux.conf"; do
		[[ -e $start ]] || continue
		first=1
		while IFS= read -r line || [[ $line ]]; do
			case $start in
			*/cmdline.txt)
				if [[ $first ]]; then told "$line"; else printf '%s\n' "$line"; fi
				first=
				;;
			*)
				words=${line#"${line%%[!$blank]*}"}
				if [[ $words == 'append '* ]]; then
					printf '%s' "${line%"$words"}append "
					told "${words#append }"
				else
					printf '%s\n' "$line"
				fi
				;;
			esac
		done <"$start" >"$start.new"
		anew "$start"
		break
	done
}
if ((${#gone[@]} + ${#arguments[@]})); then
	note arguments "${gone[@]}" "${arguments[@]}"
	tell_kernel
fi
note arguments "${arguments[@]}"

if [[ -e $kept/owed-ramdisk ]]; then
	if command -v update-initramfs >/dev/null; then update-initramfs -u; fi
	rm -f -- "$kept/owed-ramdisk"
fi
now_early=()
for path in "${early[@]}"; do
	if is_in "${path#/}" "${wanted[@]}"; then now_early+=("$path"); fi
done
note early "${now_early[@]}"

systemctl daemon-reload
fresh=()
for unit in "${units[@]}"; do
	systemctl is-enabled --quiet -- "$unit" 2>/dev/null || fresh+=("$unit")
done
stay=()
for unit in "${enabled[@]}" "${fresh[@]}"; do
	if is_in "$unit" "${units[@]}"; then stay+=("$unit"); fi
done
# Those that were enabled before there was a set, such as a package's own, are left to whoever enabled them.
note enabled "${stay[@]}"
for unit in "${fresh[@]}"; do
	owe_restart
	systemctl enable -- "$unit"
done

# What the set holds, once all of it is in its place: it is compared with before anything is sent.
if [[ -e $here/manifest.json ]]; then
	install -m 0640 -o root -g sudo "$here/manifest.json" "$kept/manifest.json.new"
	mv -f -- "$kept/manifest.json.new" "$kept/manifest.json"
fi
if [[ $leave ]]; then
	if ((${#secrets[@]})); then
		: >"$kept/secrets-left"
		for name in "${secrets[@]}" secrets.txt manifest.json; do
			[[ ! -e $here/$name ]] || {
				rm -f -- "$here/$name"
				echo "taken off the first partition: $name"
			}
		done
	fi
	if [[ -e ${here%/*}/user-data ]] && grep -qF hashed_passwd: "${here%/*}/user-data"; then
		grep -vF hashed_passwd: "${here%/*}/user-data" >"${here%/*}/user-data.new"
		sync
		mv -f -- "${here%/*}/user-data.new" "${here%/*}/user-data"
		echo 'taken off the first partition: the password in user-data'
	fi
fi
if [[ $changed ]]; then
	touch /run/yphos-restart
	echo "done: restart once"
elif [[ $(cat "$kept/owed-restart" 2>/dev/null) == "$boot" ]]; then
	touch /run/yphos-restart
	echo "done: nothing to change; the restart is still owed"
else
	rm -f -- "$kept/owed-restart"
	echo "done: nothing to change"
fi
