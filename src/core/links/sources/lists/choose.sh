#!/bin/sh
# choose.sh: makes the list of each rule anew. Where a folder cannot be read, or nothing is in it, the old list stays.
rules=${YPHOS_RULES:-/opt/yphos/rules}
lists=${YPHOS_LISTS:-/var/lib/yphos-lists}
export LC_ALL=C
failed=''
for rule in "$rules"/*.rule; do
	[ -f "$rule" ] || continue
	name=$(basename "$rule")
	name=${name%.rule}
	title='' order=name most='' longest='' whole=yes
	: >"$lists/found"
	while IFS= read -r line; do
		value=${line#* }
		case $line in
		'title '*) title=$value ;;
		'order '*) order=$value ;;
		'most '*) most=$value ;;
		'longest '*) longest=$value ;;
		'folder '*) find "$value" -type f -printf '%T@\t%p\n' >>"$lists/found" || whole='' ;;
		esac
	done <"$rule"
	if [ -z "$whole" ] || [ ! -s "$lists/found" ]; then
		echo "$name: nothing can be read in its folders; the list stays as it was" >&2
		failed=yes
		continue
	fi
	case $order in
	newest) sort -rn "$lists/found" | cut -f 2- >"$lists/sorted" ;;
	any) shuf "$lists/found" | cut -f 2- >"$lists/sorted" ;;
	*) cut -f 2- "$lists/found" | sort >"$lists/sorted" ;;
	esac
	taken=0
	{
		echo '#EXTM3U'
		[ -z "$title" ] || printf '#PLAYLIST:%s\n' "$title"
		while IFS= read -r path; do
			case $path in
			*.[Ww][Aa][Vv] | *.[Ff][Ll][Aa][Cc] | *.[Mm][Pp]3 | *.[Mm]4[Aa] | *.[Aa][Aa][Cc] | *.[Oo][Gg][Gg] | *.[Oo][Gg][Aa] | *.[Oo][Pp][Uu][Ss] | *.[Aa][Ii][Ff] | *.[Aa][Ii][Ff][Ff] | *.[Ww][Vv] | *.[Aa][Pp][Ee] | *.[Mm][Pp]4 | *.[Mm]4[Vv] | *.[Mm][Oo][Vv] | *.[Mm][Kk][Vv] | *.[Ww][Ee][Bb][Mm] | *.[Aa][Vv][Ii] | *.[Mm][Pp][Gg] | *.[Mm][Pp][Ee][Gg] | *.[Tt][Ss] | *.[Pp][Nn][Gg] | *.[Jj][Pp][Gg] | *.[Jj][Pp][Ee][Gg] | *.[Ww][Ee][Bb][Pp]) ;;
			*) continue ;;
			esac
			[ -z "$most" ] || [ "$taken" -lt "$most" ] || break
			if [ -n "$longest" ]; then
				seconds=$(ffprobe -v error -show_entries format=duration -of csv=p=0 "$path" </dev/null)
				seconds=${seconds%%.*}
				[ "${seconds:-0}" -le "$((longest * 60))" ] || continue
			fi
			printf '%s\n' "$path"
			taken=$((taken + 1))
		done <"$lists/sorted"
	} >"$lists/$name.new"
	if cmp -s "$lists/$name.new" "$lists/$name.m3u8"; then
		rm "$lists/$name.new"
	else
		mv "$lists/$name.new" "$lists/$name.m3u8"
		: >"$lists/changed"
	fi
done
rm -f "$lists/found" "$lists/sorted"
[ -z "$failed" ]
