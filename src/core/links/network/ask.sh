#!/bin/sh
# ask.sh ADDRESS FILE BYTES-AT-MOST: fetches what stands at an address of the web. Nobody near is asked unless the plan lets it,
# whatever a name or a server leads to; and no more is read than that many bytes, whatever was announced.
address=$1 file=$2 most=$3
near=${YPHOS_NEAR:-/opt/yphos/ask-near}
body=$file.part
said=$file.said
ended=$file.ended
trap 'rm -f "$body" "$said" "$ended"' EXIT

no() { # WHY
	echo "$1" >&2
	exit 1
}
# Of the whole internet, and no other way to what is near. Sources: RFC 6890; RFC 4291, 2.4; RFC 3056; RFC 4380; RFC 6052.
is_public() { # NUMBER
	case $1 in
	2002:* | 2001:0:* | 2001::* | 2001:db8:*) return 1 ;;
	[23]???:*) return 0 ;;
	*:*) return 1 ;;
	0.* | 10.* | 127.* | 169.254.* | 192.0.0.* | 192.168.* | 198.1[89].* | 22[4-9].* | 2[345]?.*) return 1 ;;
	172.1[6-9].* | 172.2?.* | 172.3[01].*) return 1 ;;
	100.6[4-9].* | 100.[789]?.* | 100.1[01]?.* | 100.12[0-7].*) return 1 ;;
	*.*.*.*) return 0 ;;
	*) return 1 ;;
	esac
}
number_of() { # HOST: one of its numbers that may be asked
	getent ahosts "$1" | while read -r one _; do
		if [ -e "$near" ] || is_public "$one"; then
			echo "$one"
			return
		fi
	done
}
part() { # takes an address of the web apart
	scheme=${address%%://*}
	case $scheme in
	http) port=80 ;;
	https) port=443 ;;
	*) no "$address is no address of the web" ;;
	esac
	rest=${address#*://}
	rest=${rest%%[/?#]*}
	case $rest in
	'['*']'*)
		host=${rest#?}
		host=${host%%']'*}
		after=${rest#*']'}
		;;
	*)
		host=${rest%%:*}
		after=${rest#"$host"}
		;;
	esac
	case $after in
	'') ;;
	:[0-9]*) port=${after#:} ;;
	*) no "$address is no address of the web" ;;
	esac
	case $host in
	'' | -* | *[!A-Za-z0-9.:_-]*) no "$address names no host" ;;
	esac
	case $port in
	*[!0-9]*) no "$address names no port" ;;
	esac
}

hops=0
while :; do
	part
	number=$(number_of "$host")
	if [ -z "$number" ]; then
		[ -z "$(getent ahosts "$host")" ] || no "$host is near, and the plan lets nobody near be asked"
		no "$host is not known to the network"
	fi
	case $number in
	*:*) number="[$number]" ;;
	esac
	{
		code=0
		# The number that was looked at is the one that is asked.
		curl --disable --silent --show-error --fail --globoff --noproxy '*' --proto '=http,https' --max-redirs 0 \
			--resolve "$host:$port:$number" --connect-timeout 30 --speed-limit 1000 --speed-time 60 --max-filesize "$most" \
			--write-out '%{stderr}\n%{http_code} %{redirect_url}\n' "$address" 2>"$said" || code=$?
		echo "$code" >"$ended"
	} | head -c "$((most + 1))" >"$body"
	[ "$(stat -c %s "$body")" -le "$most" ] || no "$address gives more than $most bytes"
	why='' status='' to=''
	while read -r one two; do
		case $one in
		'curl:') why="$two" ;;
		[1-5][0-9][0-9]) status=$one to=$two ;;
		esac
	done <"$said"
	[ "$(cat "$ended")" = 0 ] || no "$address: ${why:-broken off}"
	case $status in
	2??) break ;;
	3??) ;;
	*) no "$address: answer $status" ;;
	esac
	hops=$((hops + 1))
	[ "$hops" -le 5 ] || no "$address leads on and on"
	case $scheme/$to in
	https/https://* | http/http://* | http/https://*) address=$to ;;
	*) no "$address leads to ${to:-nowhere}" ;;
	esac
done
mv "$body" "$file"
