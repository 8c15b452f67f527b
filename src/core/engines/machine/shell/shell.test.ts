import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shellQuote } from '../../../formats/shell/quote';
import { APPLY_BEGIN, APPLY_END, VERIFY_BEGIN, VERIFY_END } from '../../../links/card/scripts';
import { FAN } from '../../../links/heat/scripts';
import { MAY_SOUND } from '../../../links/programme/scripts';
import { WAIT_FOR_SOUND } from '../../../links/sound/scripts';
import { NeverRests, parseShell, runScript, type ShellHost } from '.';

/** A machine with nothing on it but a few files. */
function hostOf(files: Record<string, string> = {}, unknown: string[] = []): ShellHost {
	const disk = new Map(Object.entries(files));
	const folders = (): Set<string> =>
		new Set([
			'/',
			'/tmp',
			...[...disk.keys()].flatMap((path) => path.split('/').map((_, n, all) => all.slice(0, n).join('/') || '/'))
		]);
	return {
		read: (path) => disk.get(path) ?? null,
		write(path, text, append) {
			if (path.startsWith('/full/')) return 'No space left on device';
			disk.set(path, (append ? (disk.get(path) ?? '') : '') + text);
			return null;
		},
		kind: (path) => (disk.has(path) ? 'file' : folders().has(path) ? 'folder' : null),
		list: (path) =>
			[...disk.keys()]
				.filter((known) => known.startsWith(`${path}/`))
				.map((known) => known.slice(path.length + 1).split('/')[0]!),
		isExecutable: () => true,
		isWritable: () => true,
		find: (name) => (name === 'cat' ? '/usr/bin/cat' : null),
		unknown: (what) => void unknown.push(what)
	};
}

function ours(text: string, isBash: boolean, args: readonly string[] = [], host = hostOf()) {
	let out = '';
	let err = '';
	const called: string[][] = [];
	const run = runScript({
		host,
		text,
		name: 'script',
		args,
		isBash,
		env: new Map([['HOME', '/root']]),
		stdin: 'first line\nsecond  line \n',
		cwd: '/tmp',
		out: { write: (piece) => void (out += piece) },
		err: { write: (piece) => void (err += piece) }
	});
	let step = run.next();
	while (!step.done) {
		called.push([...step.value.argv]);
		const [name, ...rest] = step.value.argv;
		step = run.next(
			name === 'cat' && rest.length === 0
				? { code: 0, out: step.value.stdin, err: '' }
				: name === 'fails'
					? { code: 3, out: 'half\n', err: '' }
					: name === 'sleep'
						? { code: 0, out: '', err: '' }
						: { code: 127, out: '', err: `${name}: not found\n` }
		);
	}
	return { code: step.value, out, err, called };
}

const dir = mkdtempSync(join(tmpdir(), 'yphos-shell-'));
function real(text: string, isBash: boolean, args: readonly string[] = []) {
	const script = join(dir, 'script');
	writeFileSync(script, text);
	const done = spawnSync(isBash ? 'bash' : 'dash', [script, ...args], {
		encoding: 'utf8',
		input: 'first line\nsecond  line \n',
		cwd: '/tmp',
		env: { PATH: `${dir}:/usr/bin:/bin`, HOME: '/root', LC_ALL: 'C.UTF-8' }
	});
	return { code: done.status, out: done.stdout };
}
writeFileSync(join(dir, 'fails'), '#!/bin/sh\necho half\nexit 3\n', { mode: 0o755 });

/** Run by dash, by bash and by ours: what is printed, and how it ends. */
const BOTH = [
	'echo a "b  c" $HOME; echo "$#" "$1" "${2:-none}"',
	'x=1; x=$((x + 2 * 3)); echo $x; [ "$x" -eq 7 ] && echo seven || echo no',
	'set -e; false || echo kept; ! true; if false; then :; fi; echo here; false; echo never',
	'set -e; f() { false; echo within; }; f || echo guarded; f; echo never',
	'set -e; x=$(false); echo never',
	'set -e; echo "$(false)"; echo goes on',
	'set -e; fails | cat; echo piped; fails; echo never',
	'set -u; echo "${a-unset}"; echo $b; echo never',
	'while read -r a b; do echo "[$a][$b]"; done',
	'read line; echo "$line"; read -r x; echo "[$x]"; read y; echo $?',
	'for x in a "b c" no-such-q*; do echo "<$x>"; done; for y; do echo "$y"; done',
	'n=3; while [ $n -gt 0 ]; do n=$((n - 1)); [ $n -eq 1 ] && continue; echo $n; done; echo $n $?',
	'until [ "${n:-0}" -ge 2 ]; do n=$((${n:-0} + 1)); done; echo $n',
	'case "a b" in x) echo x ;; a*|b) echo star ;; *) echo any ;; esac; case "*" in "*") echo quoted ;; esac',
	'case a in [!b]) echo not-b ;; esac; case 5 in [0-9]) echo digit ;; esac; case ab in ?) echo one ;; ??) echo two ;; esac',
	'f() { echo "in $1 $#"; return 4; }; f x y; echo $?; (exit 5); echo $?; { echo group; }; (cd /; pwd); pwd',
	'f() { local a=1; a=2; echo $a; }; a=0; f; echo $a',
	'path=/a/b/c.tar.gz; echo ${path##*/} ${path%/*} ${path%.*} ${path%%.*} ${path#*/} ${#path}',
	'echo "a\\nb" \'c\\nd\' | cat; printf "%s-%s\\n" 1 2 3; printf "%04d|%5s|%-5s|%x\\n" 7 ab cd 255; printf "%%\\n"',
	'echo "$(echo "inner $(echo deep)")" $(echo "  split   me  ") "$(printf "x\\n\\n")"',
	'a="x y"; b=$a; echo $b "$b" \'$b\' "\\$b" \\$b; echo "it\'s"; c=\'"\'; echo $c',
	'trap "echo bye; exit 6" EXIT; echo now; exit 3',
	'trap "echo bye" EXIT; false; set -e; false; echo never',
	'echo one; exit; echo two',
	'echo a && false || echo b; true && ! false; echo $?; false; echo $?',
	'x=; echo "${x:-d}" "${x-d}" "${x:+s}" "${y:=set}" $y',
	'set -- a "b c"; echo "$@" $#; shift; echo "$1" $#; for x in "$@"; do echo "($x)"; done; set --; for x in "$@"; do echo no; done; echo done',
	'echo out; echo err >&2; { echo both; echo e >&2; } 2>/dev/null; echo gone >/dev/null; nosuch 2>/dev/null; echo $?',
	'if [ -n "$x" ] || [ -z "$x" ]; then echo one; elif true; then echo two; else echo three; fi',
	'[ a = a ] && [ a != b ] && [ ! -e /nowhere ] && echo ok; [ 08 -eq 8 ] && echo dec; [ "" ]; echo $?; [ x -lt 1 ] 2>/dev/null; echo $?',
	'echo $((7 / 2)) $((-7 / 2)) $((7 % 3)) $((1 << 4)) $((5 > 3 && 2 > 1)) $((!0)) $((010)) $((0x1f)) $(((1 + 2) * 3)) $((1 ? 4 : 5))',
	'for x in a b; do [ $x = a ] && continue; false || continue; done; echo $?; for x in a; do false; done; echo $?',
	'i=1; for x in 1 2 3; do for y in 1 2; do [ $x -eq 2 ] && break 2; echo $x$y; done; done; echo end',
	'nosuch 2>/dev/null; echo $?; command -v cat >/dev/null && echo there; command -v nosuch || echo missing',
	'y="a b"; for w in $y; do echo $w; done; z=$(echo "q  r"); echo "$z"; echo $z',
	'# comment\necho a # more\necho "#no" b#c; \\\n echo joined',
	'echo ${x}y "${x}"z; a=1 b=2; echo $a$b; a=3 :; echo $a; printf "%s\\n" "$*"',
	'f() { set -- in; echo $1; }; f; echo "${1:-outer}"; cat </dev/null; echo line | { read l; echo "got $l"; }'
];
/** And what only bash has. */
const BASH = [
	'a=(x "y z"); a+=(w); echo ${#a[@]} "${a[1]}" "${a[@]}"; for e in "${a[@]}"; do echo "<$e>"; done; a=(); echo ${#a[@]}',
	'for ((i = 0; i < 4; i += 2)); do echo $i; done; ((3 > 2)) && echo yes; ((0)) || echo zero; ((i++)); echo $i',
	'a=(1 2 3 4 5 6); for ((i = 0; i < ${#a[@]}; i += 3)); do x=${a[i]} y=${a[i + 1]}; echo $x-$y; done',
	'[[ abc == a* && ! abc == b* ]] && echo match; [[ "a*" == "a*" ]]; x="*"; [[ abc == "$x" ]] || echo literal; [[ -n $x || -z $x ]] && echo or',
	'set -euo pipefail; f() { echo "${@:2}"; "${@:2}"; }; f one echo two three; fails | cat; echo never',
	'set -euo pipefail; a=() ; [[ ${#a[@]} -eq 0 ]] && echo empty; b=; [[ $b ]] || echo unset; if ((${#a[@]})); then echo no; fi; echo end',
	'while IFS= read -r line; do echo "[$line]"; done; [[ 10 -gt 9 ]] && echo num; [[ a < b ]] && echo less',
	'o=root:audio; echo "${o%:*}" "${o#*:}"; mode=0755 owner=x; echo $mode $owner; [[ $(echo 0644) != "0644" ]] && echo differs; echo $?',
	'set -e; check() { if "${@:2}" >/dev/null 2>&1; then echo "ok $1"; else echo "WRONG $1"; wrong=1; fi; }; check a true; check b false; echo $wrong',
	'x="a b c b"; w=b; echo "${x// b / - }" "${x/b/B}" "${x//b/B}" "${x//" $w "/-}" "${x//[ab]/_}" "${x/z/q}" "${x//c}"',
	'f() { local a=$1 b="$2"; echo "<$a><$b>"; }; f "one two" "three  four"; export Z=$(echo "p  q"); echo "$Z"',
	'for ((n = 0; ; n++)); do [[ $n -lt 3 ]] || break; echo $n; done; f() { for ((;;)); do return 3; done; }; f || echo $?',
	'for ((try = 0; try < 3; try++)); do false && break; echo $try; done; x=$(false) || echo caught; echo "${x:-empty}"'
];

describe('our shell does as the real ones do', () => {
	it.each([
		...BOTH.flatMap((text) => [['dash', text] as const, ['bash', text] as const]),
		...BASH.map((text) => ['bash', text] as const)
	])('%s: %s', (which, text) => {
		const isBash = which === 'bash';
		const args = ['one', 'two words'];
		const expected = real(text, isBash, args);
		const got = ours(text, isBash, args);
		expect({ code: got.code, out: got.out }).toEqual(expected);
	});
	it('carries any text exactly, as a word, an argument and through a command', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme', maxLength: 20 }), (raw) => {
				const text = raw.replaceAll('\u0000', '');
				const script = `x=${shellQuote(text)}; printf '[%s]' "$x" "$1"`;
				expect(ours(script, true, [text]).out).toBe(`[${text}][${text}]`);
			})
		);
	});
	it('writes files, appends, tests them and says when the disk is full', () => {
		const host = hostOf({ '/etc/a': 'x\n' });
		const done = ours(
			'set -e; echo 1 >/tmp/f; echo 2 >>/tmp/f; while read -r l; do echo "$l"; done </tmp/f; [ -f /etc/a ] && [ -d /etc ] && [ ! -e /etc/b ] && echo there; for f in /etc/*; do echo $f; done; echo x >/full/a; echo never',
			false,
			[],
			host
		);
		expect(done).toMatchObject({ code: 1, out: '1\n2\nthere\n/etc/a\n' });
		expect(done.err).toContain('No space left on device');
	});
});

describe('our own scripts', () => {
	it.each([
		['apply.sh', [...APPLY_BEGIN, ...APPLY_END].join('\n')],
		['verify.sh', [...VERIFY_BEGIN, ...VERIFY_END].join('\n')],
		['may-sound.sh', MAY_SOUND.join('\n')],
		['wait-for-sound.sh', WAIT_FOR_SOUND.join('\n')],
		['fan.sh', FAN.join('\n')],
		['probe.sh', readFileSync(resolve(import.meta.dirname, '../../../probe/probe.sh'), 'utf8')]
	])('%s is written in the part of the language that is known here', (_, text) =>
		expect(parseShell(text)).toMatchObject({ ok: true })
	);
	it('may-sound.sh says the same under dash and here, at any hour of any day', () => {
		const list = join(dir, 'quiet-hours.txt');
		const clock = fc.tuple(fc.nat(23), fc.nat(59)).map(([h, m]) => `${h}`.padStart(2, '0') + `${m}`.padStart(2, '0'));
		const hours = fc
			.tuple(fc.subarray([...'1234567'], { minLength: 1 }), clock, clock)
			.map(([days, from, until]) => `${days.join('')} ${from} ${until}\n`);
		fc.assert(
			fc.property(fc.array(hours, { maxLength: 3 }), fc.integer({ min: 1, max: 7 }), clock, (rows, weekday, time) => {
				const text = rows.join('');
				writeFileSync(list, text);
				const env = { YPHOS_QUIET_HOURS: list, YPHOS_WEEKDAY: String(weekday), YPHOS_TIME: time };
				const script = join(dir, 'may-sound.sh');
				writeFileSync(script, MAY_SOUND.join('\n'));
				const expected = spawnSync('dash', [script], { env: { ...process.env, ...env } }).status;
				const prelude = Object.entries(env)
					.map(([name, value]) => `${name}=${shellQuote(value)}\n`)
					.join('');
				expect(ours(prelude + MAY_SOUND.slice(1).join('\n'), false, [], hostOf({ [list]: text })).code).toBe(expected);
			}),
			{ numRuns: 80 }
		);
	});
	it('wait-for-sound.sh succeeds when the card is there, and waits as long as it was told', () => {
		const host = hostOf({ '/proc/asound/card1/id': 'Field24\n', '/dev/snd/controlC1': '', '/dev/snd/controlC0': '' });
		const text = WAIT_FOR_SOUND.join('\n');
		expect(ours(text, false, ['Field24', '30'], host)).toMatchObject({ code: 0, called: [] });
		const away = ours(text, false, ['Field42', '2'], host);
		expect(away.called).toEqual(Array(10).fill(['sleep', '0.2']));
		expect([away.code, away.err]).toEqual([1, 'the sound card Field42 is not there\n']);
	});
});

describe('what it does not know', () => {
	it.each([
		'cat <<E\nx\nE',
		'x=`date`',
		'sleep 1 &',
		'if true; then',
		'if true; then\nfi',
		'while true; do\ndone',
		'echo "open',
		'for ((;;)) do',
		'((',
		'${x',
		'case a in'
	])('is said of %j, and nothing of it is run', (text) => {
		const unknown: string[] = [];
		const done = ours(`echo before\n${text}`, true, [], hostOf({}, unknown));
		expect([done.code, done.out]).toEqual([2, '']);
		expect(unknown).toHaveLength(1);
		expect(parseShell(text).ok).toBe(false);
	});
	it('ends a loop that spins for ever, and says so; one that rests goes on', () => {
		const unknown: string[] = [];
		for (const text of ['while :; do :; done', 'for ((;;)); do x=1; done', 'until false; do (:); done'])
			expect(() => ours(text, true, [], hostOf({}, unknown))).toThrow(NeverRests);
		expect(unknown).toHaveLength(3);
		const long =
			'i=0; while [ $i -lt 15000 ]; do i=$((i + 1)); done; sleep 1; while [ $i -gt 0 ]; do i=$((i - 1)); done; echo $i';
		expect(ours(long, false)).toMatchObject({ code: 0, out: '0\n' });
	});
	it('ends a script that calls itself for ever, and stands any text', () => {
		expect(ours('f() { f; }; f', true).code).not.toBe(0);
		expect(ours('f() { x=$(f); }; f; echo end', true).code).not.toBeNull();
		fc.assert(
			fc.property(
				fc.array(
					fc.constantFrom(
						'$(',
						'${',
						'}',
						')',
						'"',
						"'",
						'a',
						' ',
						';',
						'if',
						'then',
						'fi',
						'((',
						'))',
						'[[',
						'|',
						'\n',
						'\\'
					),
					{ maxLength: 30 }
				),
				(pieces) => {
					parseShell(pieces.join(''));
				}
			),
			{ numRuns: 2000 }
		);
	});
});
