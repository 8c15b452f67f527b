#!/bin/sh
# on-air.sh: finds by the rules what is on now, and puts its list in place.
rules=${YPHOS_RULES:-/opt/yphos/programme/rules.txt}
sun=${YPHOS_SUN:-/opt/yphos/programme/sun.txt}
lists=${YPHOS_LISTS:-/opt/yphos}
state=${YPHOS_STATE:-/var/lib/yphos-on-air}
set -- ${YPHOS_NOW:-$(date '+%s %z')}
zone=${2#?}
# 08 would be taken for an octal number.
offset=$(((1${zone%??} - 100) * 60 + 1${zone#??} - 100))
case $2 in -*) offset=$((-offset)) ;; esac
wall=$(($1 + offset * 60))
minute=$((wall % 86400 / 60))
today=$((wall / 86400))

# What is to be said of a day, from its number, as words.
look_at() {
	days=$(($1 + 719468))
	of_era=$((days % 146097))
	year=$(((of_era - of_era / 1460 + of_era / 36524 - of_era / 146096) / 365))
	of_year=$((of_era - 365 * year - year / 4 + year / 100))
	month=$(((5 * of_year + 2) / 153))
	of_month=$((of_year - (153 * month + 2) / 5 + 1))
	month=$((month < 10 ? month + 3 : month - 9))
	year=$((days / 146097 * 400 + year + (month <= 2)))
	case $month in
	2) long=$((year % 4 == 0 && (year % 100 != 0 || year % 400 == 0) ? 29 : 28)) ;;
	4 | 6 | 9 | 11) long=30 ;;
	*) long=31 ;;
	esac
	rise=0 set=0
	if [ -e "$sun" ]; then
		while read -r its rows; do
			[ "$its" -eq "$month" ] || continue
			for row in $rows; do
				[ "${row%%/*}" -le "$of_month" ] || break
				set=$((${row##*/} + offset)) row=${row#*/}
				rise=$((${row%/*} + offset))
			done
			break
		done <"$sun"
	fi
	facts="$((($1 + 3) % 7 + 1)) $((($1 + 3) / 7 % 2)) $(((of_month + 6) / 7)) $((of_month + 7 > long)) $((month * 100 + of_month)) $((year * 10000 + month * 100 + of_month)) $rise $set"
}

minutes_of() {
	case $1 in
	rise*) minutes=$((rise + ${1#rise})) ;;
	set*) minutes=$((set + ${1#set})) ;;
	*) minutes=$1 ;;
	esac
}

# Whether the conditions of a line hold at that minute after a day's midnight; what is to be said of the day comes first.
holds() {
	at=$1 weekday=$2 parity=$3 nth=$4 last=$5 month_day=$6 date=$7 rise=$8 set=$9
	shift 9
	each='' length=''
	for word; do
		value=${word#*=}
		case $word in
		days=*) case $value in *"$weekday"*) ;; *) return 1 ;; esac ;;
		nth=last) [ "$last" -eq 1 ] || return 1 ;;
		nth=*) [ "$nth" -eq "$value" ] || return 1 ;;
		week=*) [ "$parity" -eq "$value" ] || return 1 ;;
		season=*)
			if [ "${value%-*}" -le "${value#*-}" ]; then
				[ "$month_day" -ge "${value%-*}" ] && [ "$month_day" -le "${value#*-}" ] || return 1
			else
				[ "$month_day" -ge "${value%-*}" ] || [ "$month_day" -le "${value#*-}" ] || return 1
			fi
			;;
		valid=*) [ "$date" -ge "${value%-*}" ] && [ "$date" -le "${value#*-}" ] || return 1 ;;
		only=*) case ,$value, in *",$date,"*) ;; *) return 1 ;; esac ;;
		never=*) case ,$value, in *",$date,"*) return 1 ;; esac ;;
		each=*) each=${value%-*} length=${value#*-} ;;
		from=*)
			minutes_of "$value"
			from=$minutes
			;;
		until=*)
			minutes_of "$value"
			until=$minutes
			;;
		esac
	done
	[ "$until" -gt "$from" ] || until=$((until + 1440))
	[ "$at" -ge "$from" ] && [ "$at" -lt "$until" ] || return 1
	[ -z "$each" ] || [ "$(((at - from) % each))" -lt "$length" ]
}

look_at "$((today - 1))"
day_before=$facts
look_at "$today"
show='' why='' loud=''
while IFS= read -r line; do
	conditions=${line%%" title="*}
	title=${line#*" title="}
	name=${conditions%%" "*}
	conditions=${conditions#* }
	case $name in
	'#'* | '') continue ;;
	otherwise)
		show=$conditions
		break
		;;
	esac
	if holds "$minute" $facts $conditions || holds "$((minute + 1440))" $day_before $conditions; then
		show=$name why=$title
		for word in $conditions; do
			case $word in volume=*) loud=$word ;; esac
		done
		break
	fi
done <"$rules"

new=''
case $show in
rest | '') ;;
all) new=$lists/playlist.m3u8 ;;
*) new=$lists/list-$show.m3u8 ;;
esac
# Of a list with entries that are on for some days only, those of today; nothing where none is left.
of_day() {
	keep=yes
	while IFS= read -r line || [ "$line" ]; do
		case $line in
		'#YPHOS-DAYS:'*)
			span=${line#*:}
			[ "$today" -ge "${span%-*}" ] && [ "$today" -le "${span#*-}" ] || keep=''
			;;
		'#EXTM3U'* | '#PLAYLIST:'*) printf '%s\n' "$line" ;;
		'#'*) [ -z "$keep" ] || printf '%s\n' "$line" ;;
		*)
			[ -z "$keep" ] || printf '%s\n' "$line"
			keep=yes
			;;
		esac
	done <"$new"
}
has_dates() {
	while IFS= read -r line; do
		case $line in '#YPHOS-DAYS:'*) return 0 ;; esac
	done <"$new"
	return 1
}
is_other=''
if [ -e "$new" ] && has_dates; then
	set -- $facts
	today=$6
	of_day >"$state/days.new"
	[ -e "$state/days.m3u8" ] && [ "$(cat "$state/days.new")" = "$(cat "$state/days.m3u8")" ] || is_other=yes
	mv "$state/days.new" "$state/days.m3u8"
	new=$state/days.m3u8
	left=''
	while IFS= read -r line; do
		case $line in '#'* | '') ;; *) left=yes ;; esac
	done <"$new"
	[ "$left" ] || new='' is_other=''
fi
printf '%s\n' "$why" >"$state/why"
old=none
[ -e "$state/now.m3u8" ] && old=$(cat "$state/now.m3u8")
was=none
[ -e "$state/volume.conf" ] && was=$(cat "$state/volume.conf")
[ "$old" = "$new" ] && [ "$was" = "$loud" ] && [ -z "$is_other" ] && exit 0
printf '%s\n' "$loud" >"$state/volume.conf"
printf '%s\n' "$new" >"$state/now.new"
mv "$state/now.new" "$state/now.m3u8"
: >"$state/changed"
