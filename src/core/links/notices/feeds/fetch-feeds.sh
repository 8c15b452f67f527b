#!/bin/sh
# fetch-feeds.sh: fetches each feed, and keeps the last good one of those that fail.
list=${YPHOS_LIST:-/opt/yphos/notices/feeds.txt}
feeds=${YPHOS_FEEDS:-/var/lib/yphos-feeds}
ask=${YPHOS_ASK:-/opt/yphos/bin/ask.sh}
failed=''
while read -r id address sign; do
	new=$feeds/$id.new
	if "$ask" "$address" "$new" 400000 && grep -qF -e "$sign" "$new"; then
		mv "$new" "$feeds/$id"
		date +%s >"$feeds/$id.when"
	else
		rm -f "$new" "$new".*
		echo "$id: not fetched; the last one stays" >&2
		failed=yes
	fi
done <"$list"
[ -z "$failed" ]
