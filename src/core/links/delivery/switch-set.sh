#!/bin/sh
# switch-set.sh: takes over the set that was fetched, once it is proven, and shows it; one under which the player does not come to life
# is taken back.
# wanted FOLDER: what of the set there is to be fetched; it may be anybody who asks. 3: nothing, for it is shown already.
# check: before the player begins, whether what is to be shown is whole. back: shows the one before.
own=${YPHOS_DELIVERY:-/opt/yphos/delivery}
state=${YPHOS_CONTENT:-/var/lib/yphos-content}
fetched=${YPHOS_FETCH:-/var/lib/yphos-fetch}
root=${YPHOS_ROOT:-}
card=$root/opt/yphos
player=yphos-player.service
on_air=${YPHOS_ON_AIR:-/var/lib/yphos-on-air/now.m3u8}
umask 022

stays() { # WHY
	echo "$1"
	exit 1
}
digest_of() { sha256sum <"$1" | cut -c1-64; }
size_of() { stat -c %s "$1" 2>/dev/null || echo 0; }
is_number() { # TEXT DIGITS-AT-MOST
	case $1 in
	'' | *[!0-9]* | 0?*) return 1 ;;
	esac
	[ "${#1}" -le "$2" ]
}
is_digest() {
	case $1 in
	*[!0-9a-f]*) return 1 ;;
	esac
	[ "${#1}" -eq 64 ]
}
# All of a value or nothing, and on the card for good before anything that follows from it.
put() { # NAME TEXT
	printf '%s\n' "$2" >"$state/$1.new"
	sync
	mv -f "$state/$1.new" "$state/$1"
	sync
}
point() { # SET
	ln -sfn "$1" "$state/now.new"
	mv -T "$state/now.new" "$state/now"
	sync
}

# Says what is wrong with a set, or leaves its era and number. Nothing in it is trusted, signed or not; whoever holds the key begins a
# new era, in which numbers count anew: one that was packed under a wrong clock blocks none that come later.
judge() { # FOLDER
	manifest=$1/manifest.txt
	[ -f "$manifest" ] && [ "$(size_of "$manifest")" -le 1000000 ] || stays 'the set has no manifest'
	if [ -e "$own/key.pem" ]; then
		openssl dgst -sha256 -verify "$own/key.pem" -signature "$1/manifest.txt.sig" "$manifest" >/dev/null 2>&1 ||
			stays 'the set is not signed with your key'
	fi
	host=$(cat "$own/for")
	era=0 number='' ours='' whole='' same=yes count=0 sum=0
	while read -r word digest bytes path; do
		case $word in
		yphos-content) [ "$digest" = 1 ] || stays 'the set is of a kind that is not known here' ;;
		for)
			[ "$digest" = "$host" ] || stays 'the set is for another endpoint'
			ours=yes
			;;
		era) is_number "$digest" 4 && era=$digest || stays 'the set gives no era' ;;
		number) is_number "$digest" 12 && number=$digest || stays 'the set gives no number' ;;
		needs)
			case $path in
			*..* | *//* | *[!A-Za-z0-9/._@-]*) stays 'the set needs what no card set brings' ;;
			/etc/systemd/system/yphos-* | /opt/yphos/bin/* | /etc/mpv/*) ;;
			*) stays 'the set needs what no card set brings' ;;
			esac
			[ -f "$root$path" ] && [ "$(digest_of "$root$path")" = "$digest" ] ||
				stays "the set needs another $path: send the whole card set"
			;;
		file)
			case $path in
			*..* | *//* | */ | /*) stays 'the set names a file that climbs out' ;;
			notices/?* | media/?* | programme/?* | playlist.m3u8 | list-*.m3u8) ;;
			*) stays 'the set brings what is no content' ;;
			esac
			[ "${#path}" -le 300 ] || stays 'the set names a file by more than 300 letters'
			is_digest "$digest" || stays 'the set gives no digest of a file'
			is_number "$bytes" 10 || stays 'the set gives no size of a file'
			count=$((count + 1)) sum=$((sum + bytes))
			[ "$count" -le 5000 ] || stays 'the set has more than 5000 files'
			[ -f "$state/now/$path" ] && [ "$(digest_of "$state/now/$path")" = "$digest" ] || same=''
			;;
		end) whole=yes ;;
		*) stays 'the set says what is not known here' ;;
		esac
	done <"$manifest"
	[ "$ours" ] && [ "$whole" ] && [ "$number" ] || stays 'the manifest is not whole'
	[ -z "$same" ] || exit 3
	last_era=0 last=0
	if [ -e "$state/last" ]; then read -r last_era last <"$state/last"; fi
	[ "$era" -gt "$last_era" ] || { [ "$era" -eq "$last_era" ] && [ "$number" -gt "$last" ]; } ||
		stays "set $number is not newer than set $last, which was here"
	free=$(($(stat -f -c '%a * %S' "$state" 2>/dev/null || echo 0)))
	[ "$free" -eq 0 ] || [ "$sum" -lt "$((free - 50000000))" ] || stays "there is no room for the $sum bytes of the set"
}
has() { # DIGEST PATH: here already, and proven
	[ -f "$state/files/$1" ] || { [ -f "$state/now/$2" ] && [ "$(digest_of "$state/now/$2")" = "$1" ]; }
}
# Whoever fetches may be anybody: what lies there is copied, never followed, never waited for, and no more of it than was announced.
take_one() { # NAME FILE BYTES
	dd if="$fetched/$1" of="$2" iflag=nofollow,nonblock,fullblock,count_bytes count="$(($3 + 1))" bs=65536 status=none 2>/dev/null &&
		[ "$(size_of "$2")" -le "$3" ]
}
take() { # leaves the set whole in a folder of its own
	new=$state/incoming
	rm -rf "$new"
	mkdir -p "$new" "$state/files" "$state/sets"
	take_one manifest.txt "$new/manifest.txt" 1000000 || return 1
	[ ! -e "$own/key.pem" ] || take_one manifest.txt.sig "$new/manifest.txt.sig" 1000 || return 1
	judge "$new"
	set=$state/sets/$era-$number
	rm -rf "$set"
	mkdir -p "$set/media"
	while read -r word digest bytes path; do
		[ "$word" = file ] || continue
		file=$state/files/$digest
		if [ ! -f "$file" ]; then
			if [ -f "$state/now/$path" ] && [ "$(digest_of "$state/now/$path")" = "$digest" ]; then
				cp "$state/now/$path" "$file.part"
			else
				take_one "$digest" "$file.part" "$bytes"
			fi && [ "$(size_of "$file.part") $(digest_of "$file.part")" = "$bytes $digest" ] || {
				rm -f "$file.part"
				stays "$path has not come whole"
			}
			mv "$file.part" "$file"
			rm -f "$fetched/$digest"
		fi
		mkdir -p "$(dirname "$set/$path")"
		ln "$file" "$set/$path" || stays "$path could not be put in its place"
	done <"$new/manifest.txt"
	# What was copied to the endpoint by hand belongs to every set.
	for file in "$card/media"/*; do
		[ ! -e "$file" ] || [ -e "$set/media/${file##*/}" ] || ln -s "$file" "$set/media/${file##*/}"
	done
	mv "$new/manifest.txt" "$set/manifest.txt"
	echo "$era $number" >"$new/of"
	sync
}
is_whole() { # SET
	[ "$1" != "$card" ] || return 0
	[ -f "$1/manifest.txt" ] || return 1
	while read -r word _ bytes path; do
		[ "$word" != file ] || [ "$(size_of "$1/$path")" = "$bytes" ] || return 1
	done <"$1/manifest.txt"
}
begin() {
	since=$(date +%s)
	for unit in $(cat "$own/before" 2>/dev/null); do systemctl start "$unit"; done
	systemctl try-restart $player
}
# What there is to see of a player that has come to life: a page says so itself; the other one runs, and is not begun again.
lives() {
	if [ -e "$own/shows-pages" ]; then
		# A small board with a slow card may need minutes for a browser.
		tries=0
		while [ $tries -lt 48 ]; do
			sleep 5
			journalctl --quiet --unit $player --since "@$since" --output cat | grep -qF yphos-page && return 0
			tries=$((tries + 1))
		done
		return 1
	fi
	# What plays may be begun anew, or stopped, because a rule holds no longer: that says nothing of the set, and it is looked at once more.
	for _ in 1 2 3; do
		on=$(what_is_on)
		begun=$(systemctl show --property=NRestarts --value $player)
		left=$(times_left)
		sleep 30
		[ "$(what_is_on)" = "$on" ] || continue
		[ ! -e "$on_air" ] || [ "$(cat "$on_air")" ] || return 0
		systemctl is-active --quiet $player &&
			[ "$(($(systemctl show --property=NRestarts --value $player) - begun))" -eq "$(($(times_left) - left))" ]
		return
	done
	systemctl is-active --quiet $player || [ -z "$(cat "$on_air")" ]
}
what_is_on() { cat "$on_air" "${on_air%/*}/volume.conf" "${on_air%/*}/days.m3u8" 2>/dev/null; }
# So often the player has ended by itself to make way for what is on then; finish.lua says so.
times_left() {
	journalctl --quiet --unit $player --since "@$since" --output cat | grep -c '^.finish. something else is on'
}
# Sets and files that neither what is shown nor the one before needs, and what was left half done.
tidy() {
	kept=" $(readlink "$state/now") $(cat "$state/before" 2>/dev/null) "
	for set in "$state/sets"/*; do
		case "$kept" in
		*" $set "*) ;;
		*) rm -rf "$set" ;;
		esac
	done
	rm -rf "$state/incoming"
	for file in "$state/files"/*; do
		cat "$state/sets"/*/manifest.txt 2>/dev/null | grep -qF "file ${file##*/} " || rm -f "$file"
	done
}
# A set on trial: "new", until it is known; then "shown", "trusted" or "refused", until that is done. After a cut it goes on from there.
settle() {
	read -r verdict set before <"$state/trying"
	number=${set##*/}
	if [ "$verdict" = new ]; then
		verdict=refused
		if is_whole "$set"; then
			if [ "$(readlink "$state/now")" != "$set" ]; then
				point "$set"
				begin
			fi
			if lives; then verdict=shown; fi
		fi
		put trying "$verdict $set $before"
	fi
	put last "${number%-*} ${number#*-}"
	if [ "$verdict" = refused ]; then
		[ "$(readlink "$state/now")" = "$before" ] || point "$before"
		rm -f "$state/trying"
		tidy
		begin
		echo 'the player does not come to life with the new set: the one before is shown again' >&2
		exit 1
	fi
	[ "$(readlink "$state/now")" = "$set" ] || point "$set"
	put before "$before"
	rm -f "$state/trying"
	tidy
	case $verdict in
	trusted) echo "set ${number#*-} is taken on trust: nothing plays now" ;;
	*) echo 'the new set is shown' ;;
	esac
}

# What is shown is not changed while somebody else changes it. What looks at it before the player begins waits for nobody: whoever tries
# a set waits for the player.
alone() { # SECONDS-TO-WAIT
	flock --wait "$1" 9 || stays 'another set is on trial: what is shown stays until that is known. Try again in five minutes'
}
go_back() {
	now=$(readlink "$state/now")
	to=$(cat "$state/before" 2>/dev/null)
	if [ -e "$state/trying" ] || [ -z "$to" ] || [ "$to" = "$now" ] || ! is_whole "$to"; then
		echo 'there is no set before this one: what is shown stays' >&2
		exit 1
	fi
	put before "$now"
	point "$to"
	begin
}

case ${1:-} in
wanted)
	judge "$2"
	while read -r word digest bytes path; do
		[ "$word" != file ] || has "$digest" "$path" || echo "$digest $bytes $path"
	done <"$2/manifest.txt"
	exit 0
	;;
check)
	# Before, whoever fetched owned the folder: nothing in it is believed.
	[ ! -e "$state" ] || [ "$(stat -c %U "$state")" = root ] || [ "$root" ] || rm -rf "$state"
	mkdir -p "$state"
	now=$(readlink "$state/now")
	if [ -z "$now" ]; then
		point "$card"
	elif ! is_whole "$now"; then
		before=$card
		[ ! -e "$state/before" ] || before=$(cat "$state/before")
		if [ -e "$state/trying" ]; then
			read -r _ set before <"$state/trying"
			put trying "refused $set $before"
		fi
		is_whole "$before" || before=$card
		point "$before"
		echo "what was to be shown is not whole: the set before is shown" >&2
	fi
	exit 0
	;;
back)
	mkdir -p "$state"
	{
		alone 2
		go_back
	} 9>"$state/turn"
	exit 0
	;;
esac

mkdir -p "$state"
{
	alone 120
	since=$(date +%s)
	# The power went before it was known: the player has begun anew with it, and says again that it lives.
	if [ -e "$state/trying" ]; then settle; fi
	[ -e "$fetched/manifest.txt" ] || exit 0
	why=$(take) || {
		code=$?
		rm -rf "$state/incoming" "$state/files"/*.part
		rm -f "$fetched/manifest.txt"
		[ "$code" -ne 3 ] || exit 0
		tidy
		echo "${why:-what was fetched cannot be read}; what is shown stays" >&2
		exit 1
	}
	rm -f "$fetched/manifest.txt" "$fetched/manifest.txt.sig"
	read -r era number <"$state/incoming/of"
	rm -rf "$state/incoming"
	verdict=new
	systemctl is-active --quiet $player || verdict=trusted
	put trying "$verdict $state/sets/$era-$number $(readlink "$state/now")"
	settle
} 9>"$state/turn"
