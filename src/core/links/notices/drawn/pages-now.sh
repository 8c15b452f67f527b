#!/bin/sh
# pages-now.sh: each page shows the picture that was drawn for now.
from=${YPHOS_PAGES:-/opt/yphos/notices}
shown=${YPHOS_SHOWN:-/var/lib/yphos-pages}
now=${YPHOS_NOW:-$(date +%s)}
page='' picture=''
take() {
	[ "$page" ] || return 0
	ln -sfn "$from/pictures/$picture" "$shown/$page.new"
	mv -f "$shown/$page.new" "$shown/$page.png"
}
while read -r its at name; do
	if [ "$its" != "$page" ]; then
		take
		page=$its picture=$name
	fi
	[ "$at" -gt "$now" ] || picture=$name
done <"$from/pictures.txt"
take
