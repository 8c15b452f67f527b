import { parseShell } from '.';
import { type FuzzedReader } from '../../../readers/reader';

export default [
	{
		name: 'parseShell',
		samples: [
			'set -e\nfor x in "$@"; do [ -e "$x" ] && echo "${x##*/}" >>/tmp/f || exit $((1 + 2)); done\nf() { local a=$(cat <x | sort); }\ncase $a in b*|c) f ;; esac\n'
		],
		read: (_, text) => parseShell(text)
	}
] satisfies readonly FuzzedReader[];
