#!/bin/sh
# renew.sh: fetches the set that stands at an address, into a folder of its own. It has no rights, and nothing that it leaves there is
# believed: switch-set.sh looks at all of it once more, and takes it over.
own=${YPHOS_DELIVERY:-/opt/yphos/delivery}
fetched=${YPHOS_FETCH:-/var/lib/yphos-fetch}
bin=${YPHOS_BIN:-/opt/yphos/bin}
from=$(cat "$own/from")

stays() { # WHY
	rm -f "$fetched/manifest.txt" "$fetched/manifest.txt.sig" "$fetched"/*.new
	echo "$1; what is shown stays" >&2
	exit 1
}
get() { # NAME FILE BYTES-AT-MOST
	case $from in
	http://* | https://*) "$bin/ask.sh" "$from/$1" "$2" "$3" ;;
	*)
		# On a share or a stick: a plain file of it, and no more than that many bytes.
		[ -f "$from/$1" ] || return 1
		head -c "$(($3 + 1))" <"$from/$1" >"$2" || return 1
		[ "$(stat -c %s "$2")" -le "$3" ]
		;;
	esac
}

rm -f "$fetched"/*.new "$fetched"/*.part "$fetched"/*.said "$fetched"/*.ended
get manifest.txt "$fetched/manifest.txt.new" 1000000 || stays "no set can be fetched from $from"
if [ -e "$own/key.pem" ]; then
	get manifest.txt.sig "$fetched/manifest.txt.sig.new" 1000 || stays 'the set has no signature'
	mv "$fetched/manifest.txt.sig.new" "$fetched/manifest.txt.sig"
fi
mv "$fetched/manifest.txt.new" "$fetched/manifest.txt"
code=0
wanted=$("$bin/switch-set.sh" wanted "$fetched") || code=$?
case $code in
0) ;;
3)
	# It is shown already.
	rm -f "$fetched/manifest.txt" "$fetched/manifest.txt.sig"
	exit 0
	;;
*) stays "${wanted:-the set is refused}" ;;
esac

# What an earlier set left here, and this one does not want.
for file in "$fetched"/*; do
	digest=${file##*/}
	case $digest in
	manifest.txt*) ;;
	*)
		case "$wanted" in
		*"$digest "*) ;;
		*) rm -f "$file" ;;
		esac
		;;
	esac
done
echo "$wanted" | while read -r digest bytes path; do
	[ "$digest" ] && [ ! -e "$fetched/$digest" ] || continue
	get "files/$digest" "$fetched/$digest.new" "$bytes" || {
		rm -f "$fetched/$digest.new"
		echo "$path could not be fetched"
		exit 1
	}
	if [ "$(stat -c %s "$fetched/$digest.new") $(sha256sum <"$fetched/$digest.new" | cut -c1-64)" != "$bytes $digest" ]; then
		rm -f "$fetched/$digest.new"
		echo "$path is not what the manifest says"
		exit 1
	fi
	mv "$fetched/$digest.new" "$fetched/$digest"
done >"$fetched/why.new" || stays "$(cat "$fetched/why.new")"
rm -f "$fetched/why.new"
