#!/bin/sh
# phone.sh: reads one request from standard input and answers it. Above: its port, the words that may be asked for, whether it asks for a password.
page=/opt/yphos/phone/page.html
asked=/run/yphos-asked
answer() {
	printf 'HTTP/1.1 %s\r\nContent-Type: text/html; charset=utf-8\r\nCache-Control: no-store\r\nConnection: close\r\n%s\r\n' "$1" "$2"
}
refuse() {
	answer "$1"
	echo "<!doctype html><title>No</title><p>$2"
	exit 0
}
cr=$(printf '\r')
read -r method path rest || exit 0
host=''
origin=''
said=''
count=0
while read -r name value && [ "$count" -lt 60 ]; do
	value=${value%"$cr"}
	case $name in
	"$cr" | '') break ;;
	[Hh]ost:) host=$value ;;
	[Oo]rigin:) origin=$value ;;
	[Aa]uthorization:) said=${value#[Bb]asic } ;;
	esac
	count=$((count + 1))
done
own=$(cat /etc/hostname)
# Its own name or a number, and its own port: any other name may be somebody's who has it lead here.
asked_port=${host##*:}
name=${host%:"$asked_port"}
[ "$asked_port" = "$port" ] || refuse '403 Forbidden' 'This is not my port.'
case $name in
"$own" | "$own.local") ;;
'['*[!0-9a-fA-F:]*']' | *[!0-9.]*.*) refuse '403 Forbidden' 'This is not my name.' ;;
'['*:*:*']') ;;
*[!0-9.]* | *.*.*.*.* | *..* | .* | *.) refuse '403 Forbidden' 'This is not my name.' ;;
*.*.*.*) ;;
*) refuse '403 Forbidden' 'This is not my name.' ;;
esac
# Whoever guesses waits, for the hash and then besides.
if [ "$asks_password" ]; then
	given=$(printf '%s' "$said" | head -c 600 | base64 -d 2>/dev/null)
	known=$(cat "$CREDENTIALS_DIRECTORY/phone-password")
	salt=${known#'$6$'}
	hash=''
	[ -z "$said" ] || [ -z "$known" ] || hash=$(printf '%s' "${given#*:}" | openssl passwd -6 -salt "${salt%'$'*}" -stdin)
	if [ -z "$hash" ] || [ "$hash" != "$known" ]; then
		[ -z "$said" ] || sleep 2
		answer '401 Unauthorized' "$(printf 'WWW-Authenticate: Basic realm="%s", charset="UTF-8"\r' "$own")
"
		echo '<!doctype html><title>Password</title><p>This page asks for its password; the name may be anything.'
		exit 0
	fi
fi
word=${path#/}
case $method in
GET)
	[ "$path" = / ] || refuse '404 Not Found' 'There is one page only.'
	answer '200 OK'
	cat "$page"
	;;
POST)
	[ "$origin" = "http://$host" ] || refuse '403 Forbidden' 'Only my own page may ask.'
	case $words in
	*" $word "*) ;;
	*) refuse '404 Not Found' 'Nobody knows what that is.' ;;
	esac
	echo "$host" >"$asked/$word"
	if [ "$word" = shut-down ]; then
		answer '200 OK'
		echo '<!doctype html><meta name="viewport" content="width=device-width"><title>Shutting down</title><p>It shuts down. Wait until its light has stopped blinking, then pull the plug.'
	else
		answer '303 See Other' "$(printf 'Location: /\r')
"
	fi
	;;
*) refuse '405 Method Not Allowed' 'Pages can be read, and buttons pressed.' ;;
esac
