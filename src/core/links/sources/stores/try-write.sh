#!/bin/sh
# try-write.sh FOLDER: writes a small file there, reads it back, and takes it away again; says why that cannot be done.
file=$1/.yphos-$$
why=$({ printf 'written' >"$file" && [ "$(cat "$file")" = 'written' ] && rm -f "$file"; } 2>&1) && exit 0
echo "$1 cannot be written: $why" >&2
exit 1
