import { CONTENT_DIR } from '../../files/content';
import { PLAYER_UNIT } from '../../files/cardFile';
import { OWN_DIR } from './places';

/** A manifest of 5000 files. */
const LONGEST_MANIFEST = 1_000_000;

/**
 * Fetches a set of content. Whatever goes wrong, nothing that is shown has been touched; what has come once is not fetched again.
 * Sources: curl(1), openssl-dgst(1), sha256sum(1).
 */
export const RENEW = `#!/bin/sh
# renew.sh: fetches the set that stands at an address; nothing of it is used before all of it is here and proven.
own=\${YPHOS_DELIVERY:-${OWN_DIR}}
state=\${YPHOS_CONTENT:-${CONTENT_DIR}}
root=\${YPHOS_ROOT:-}
from=$(cat "$own/from")
host=$(cat "$own/for")

stays() { # WHY
	echo "$1; what is shown stays" >&2
	exit 1
}
get() { # NAME FILE BYTES-AT-MOST
	curl --silent --show-error --fail --location --max-redirs 5 --proto '=http,https,file' --connect-timeout 30 \\
		--speed-limit 1000 --speed-time 60 --max-filesize "$3" --output "$2" "$from/$1"
}
digest_of() { sha256sum <"$1" | cut -c1-64; }

mkdir -p "$state/files" "$state/sets"
get manifest.txt "$state/manifest.new" ${LONGEST_MANIFEST} || stays "no set can be fetched from $from"
if [ -e "$own/key.pem" ]; then
	get manifest.txt.sig "$state/manifest.sig" 1000 || stays 'the set has no signature'
	openssl dgst -sha256 -verify "$own/key.pem" -signature "$state/manifest.sig" "$state/manifest.new" >/dev/null 2>&1 ||
		stays 'the set is not signed with your key'
fi

number='' ours='' whole='' same=yes
while read -r word digest bytes path; do
	case $word in
	yphos-content) [ "$digest" = 1 ] || stays 'the set is of a kind that is not known here' ;;
	for)
		[ "$digest" = "$host" ] || stays "the set is for $digest"
		ours=yes
		;;
	number) number=$digest ;;
	needs) [ "$(digest_of "$root$path")" = "$digest" ] || stays "the set needs another $path: send the whole card set" ;;
	file)
		case $path in
		*..*) stays "the set names $path" ;;
		notices/* | media/* | programme/* | playlist.m3u8 | list-*.m3u8) ;;
		*) stays "the set brings $path, which is no content" ;;
		esac
		case $digest in
		*[!0-9a-f]* | '') stays "the set gives no digest of $path" ;;
		esac
		[ -e "$state/now/$path" ] && [ "$(digest_of "$state/now/$path")" = "$digest" ] || same=''
		;;
	end) whole=yes ;;
	*) stays "the set says $word, which is not known here" ;;
	esac
done <"$state/manifest.new"
case $number in
*[!0-9]* | '') whole='' ;;
esac
[ "$ours" ] && [ "$whole" ] || stays 'the manifest is not whole'
[ -z "$same" ] || exit 0
last=0
[ -e "$state/last" ] && last=$(cat "$state/last")
[ "$number" -gt "$last" ] || stays "set $number is not newer than set $last, which was here"

set=$state/sets/$number
rm -rf "$set"
mkdir -p "$set/media"
while read -r word digest bytes path; do
	[ "$word" = file ] || continue
	file=$state/files/$digest
	if [ ! -e "$file" ]; then
		if [ -e "$state/now/$path" ] && [ "$(digest_of "$state/now/$path")" = "$digest" ]; then
			cp "$state/now/$path" "$file.part"
		else
			get "files/$digest" "$file.part" "$bytes" || stays "$path could not be fetched"
		fi
		if [ "$(digest_of "$file.part")" != "$digest" ]; then
			rm -f "$file.part"
			stays "$path is not what the manifest says"
		fi
		mv "$file.part" "$file"
	fi
	mkdir -p "$(dirname "$set/$path")"
	ln "$file" "$set/$path" || stays "$path could not be put in its place"
done <"$state/manifest.new"
# What was copied to the endpoint by hand belongs to every set.
for file in "$root/opt/yphos/media"/*; do
	[ ! -e "$file" ] || [ -e "$set/media/\${file##*/}" ] || ln -s "$file" "$set/media/\${file##*/}"
done
mv "$state/manifest.new" "$set/manifest.txt"
sync
echo "$number" >"$state/ready"`.split('\n');

/** What there is to see of a player that has come to life: the page says so itself; the other one runs, and is not begun again. */
const LIVES = {
	pages: `	# A small board with a slow card may need minutes for a browser.
	tries=0
	while [ $tries -lt 48 ]; do
		sleep 5
		journalctl --quiet --unit ${PLAYER_UNIT} --since "@$since" --output cat | grep -qF yphos-page && return 0
		tries=$((tries + 1))
	done
	return 1`,
	list: `	begun=$(systemctl show --property=NRestarts --value ${PLAYER_UNIT})
	sleep 30
	systemctl is-active --quiet ${PLAYER_UNIT} &&
		[ "$(systemctl show --property=NRestarts --value ${PLAYER_UNIT})" = "$begun" ]`
} as const;

/**
 * Shows the set that was fetched, by one link that changes at once. A set under which the player does not come to life is taken back,
 * at the next start too, should the power go meanwhile. Sources: rename(2); ln(1), mv(1), -T; systemctl(1), show.
 */
export const switchSet = (player: 'pages' | 'list', before: readonly string[]): string[] =>
	`#!/bin/sh
# switch-set.sh: shows the set that was fetched; one under which the player does not come to life is taken back.
# back: shows the one before. check: before the player begins, whether what is to be shown is whole.
state=\${YPHOS_CONTENT:-${CONTENT_DIR}}
card=\${YPHOS_ROOT:-}/opt/yphos

point() { # SET
	ln -sfn "$1" "$state/now.new"
	mv -T "$state/now.new" "$state/now"
	sync
}
is_whole() { # SET
	[ "$1" != "$card" ] || return 0
	[ -e "$1/manifest.txt" ] || return 1
	while read -r word _ bytes path; do
		[ "$word" != file ] || [ "$(stat -c %s "$1/$path" 2>/dev/null)" = "$bytes" ] || return 1
	done <"$1/manifest.txt"
}
begin() {
	since=$(date +%s)${before.length ? `\n\tsystemctl start ${before.join(' ')}` : ''}
	systemctl try-restart ${PLAYER_UNIT}
}
lives() {
${LIVES[player]}
}
# Sets and files that neither what is shown nor the one before needs.
tidy() {
	kept="$(readlink "$state/now") $(cat "$state/before")"
	for set in "$state/sets"/*; do
		case " $kept " in
		*" $set "*) ;;
		*) rm -rf "$set" ;;
		esac
	done
	for file in "$state/files"/*; do
		cat "$state/sets"/*/manifest.txt 2>/dev/null | grep -qF "file \${file##*/} " || rm -f "$file"
	done
}

case \${1:-} in
check)
	mkdir -p "$state"
	now=$(readlink "$state/now")
	if [ -z "$now" ]; then
		point "$card"
	elif ! is_whole "$now"; then
		before=$card
		[ ! -e "$state/before" ] || before=$(cat "$state/before")
		is_whole "$before" || before=$card
		rm -f "$state/trying"
		point "$before"
		echo "what was to be shown is not whole: the set before is shown" >&2
	fi
	exit 0
	;;
back)
	[ -e "$state/before" ] || { echo 'there is no set before this one' >&2; exit 1; }
	now=$(readlink "$state/now")
	point "$(cat "$state/before")"
	echo "$now" >"$state/before"
	begin
	exit 0
	;;
esac

since=$(date +%s)
if [ -e "$state/trying" ]; then
	# The power went before it was known: the player has begun anew with it, and says again that it lives.
	before=$(cat "$state/trying")
else
	[ -e "$state/ready" ] || exit 0
	number=$(cat "$state/ready")
	if ! is_whole "$state/sets/$number"; then
		rm "$state/ready"
		echo "set $number is not whole: what is shown stays" >&2
		exit 1
	fi
	before=$(readlink "$state/now")
	echo "$number" >"$state/last"
	echo "$before" >"$state/before"
	echo "$before" >"$state/trying"
	rm "$state/ready"
	if ! systemctl is-active --quiet ${PLAYER_UNIT}; then
		point "$state/sets/$number"
		rm "$state/trying"
		echo "set $number is taken on trust: nothing plays now"
		tidy
		exit 0
	fi
	point "$state/sets/$number"
	begin
fi
if lives; then
	rm "$state/trying"
	tidy
	echo 'the new set is shown'
else
	point "$before"
	rm "$state/trying"
	begin
	echo 'the player does not come to life with the new set: the one before is shown again' >&2
	exit 1
fi`
		.split('\n')
		// Only a page is asked since when.
		.filter((line) => player === 'pages' || !/^\t?since=/.test(line));
