import { createSign, generateKeyPairSync } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ScratchRoot } from '../../../../tests/scratchRoot';
import { cardBytes } from '../../files/cardBytes';
import { lines, rootPath, textFile } from '../../files/cardFile';
import type { CardFile } from '../../link/file';
import { packContent, packEntries } from './pack';
import { CONTENT_UNIT, FETCH_DIR, SWITCH_PATH } from './places';
import { SWITCH_SET } from './scripts';
import { keyLines } from './settings';

const { publicKey, privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
const KEY = publicKey.export({ type: 'spki', format: 'der' }).toString('base64');
const files: CardFile[] = ['two', 'more'].map((word, n) =>
	textFile(rootPath(`/opt/yphos/media/${n}.txt`), '', lines('notices', word))
);
const pack = packContent(files, { hostName: 'hatch', number: 100, era: 0 });
const first = pack.files[0]!.digest;

/** Whoever fetches has been taken over: it leaves in its own folder whatever it likes, and the administrator comes to look. */
describe.skipIf(!ScratchRoot.isPossible)('what an unprivileged user leaves for the administrator', () => {
	let root: ScratchRoot;
	beforeEach(() => {
		root = new ScratchRoot();
		root.put(SWITCH_PATH, SWITCH_SET.join('\n'), 0o755);
		root.put('/opt/yphos/delivery/for', 'hatch\n');
		root.put('/opt/yphos/delivery/key.pem', `${keyLines(KEY).join('\n')}\n`);
		root.put('/opt/yphos/media/0.txt', 'one\n');
		root.put('/etc/secret', 'the administrator\u2019s alone\n', 0o600);
		root.standIn('systemctl', 'case $1 in is-active) exit 3 ;; esac');
		root.run([
			'sh',
			'-c',
			`${SWITCH_PATH} check; mkdir ${FETCH_DIR}; chown daemon: ${FETCH_DIR}; chmod 700 ${FETCH_DIR}`
		]);
		const signature = createSign('SHA256').update(pack.manifest).sign(privateKey);
		for (const { path, bytes } of packEntries(pack, signature))
			root.put(`/brought/${path.replace('files/', '')}`, bytes as Uint8Array);
	});
	afterEach(() => root.remove());

	const attack = (script: string) =>
		root.run(['sh', '-c', `cp /brought/* ${FETCH_DIR}; cd ${FETCH_DIR}; ${script}`], { user: 'daemon:daemon' });
	const taken = () => root.run([SWITCH_PATH], { timeoutMs: 20_000 });
	const outside = (): Map<string, string> =>
		new Map(
			[...root.left(['etc', 'opt', 'usr', 'home', 'root', 'tmp'])].filter(([path]) => !path.startsWith('opt/yphos'))
		);

	it('is taken where it is what the manifest says', () => {
		attack('true');
		expect(taken()).toEqual({ code: 0, out: 'set 100 is taken on trust: nothing plays now\n', err: '' });
		expect(root.read('/var/lib/yphos-content/sets/0-100/media/0.txt')).toBe('two\n');
	});

	it.each([
		['a link in the place of the manifest', 'ln -sf /etc/secret manifest.txt'],
		['a link in the place of the signature', 'ln -sf /etc/secret manifest.txt.sig'],
		['a link in the place of a file', `ln -sf /etc/secret ${first}`],
		['a link that leads in circles', `rm ${first}; ln -s ${first} ${first}`],
		['a pipe in the place of the manifest', 'rm manifest.txt; mkfifo manifest.txt'],
		['a pipe in the place of a file', `rm ${first}; mkfifo ${first}`],
		['a folder in the place of a file', `rm ${first}; mkdir ${first}`],
		['a hard link to another file of its own', `rm ${first}; ln manifest.txt ${first}`],
		['a device that never ends', `ln -sf /dev/zero ${first}`],
		['a file without end', `truncate -s 40G ${first}; truncate -s 40G manifest.txt.sig`],
		['a manifest without end', 'truncate -s 40G manifest.txt'],
		['names that are options', "touch -- '-rf' '--help' '..x' '*'; rm manifest.txt; ln -s /etc/secret manifest.txt"],
		['a manifest of its own', `echo "file $(sha256sum </etc/passwd | cut -c1-64) 10 media/x" >manifest.txt`]
	])('%s: nothing is followed, waited for, written elsewhere or told', (_, script) => {
		const before = outside();
		attack(script);
		const done = taken();
		expect(done.code).toBe(1);
		expect(`${done.out}${done.err}`).toMatch(/what is shown stays\n$/);
		expect(`${done.out}${done.err}`).not.toContain('alone');
		expect(outside()).toEqual(before);
		expect([...root.left(['var']).values()].join()).not.toContain('alone');
		expect(root.run(['readlink', '/var/lib/yphos-content/now']).out).toBe('/opt/yphos\n');
		// Brought as it should be, it is taken after all.
		root.run(['sh', '-c', `rm -rf ${FETCH_DIR}/* ${FETCH_DIR}/..x`]);
		attack('true');
		expect(taken().code).toBe(0);
	});

	it('changed again and again while it is being looked at, is never more than what was signed', () => {
		attack('true');
		const script = `for n in 1 2; do
			su -s /bin/sh daemon -c 'cp /brought/* ${FETCH_DIR}; cd ${FETCH_DIR}; end=$(($(date +%s) + 2)); while [ $(date +%s) -lt $end ]; do ln -sf /etc/secret ${first}; ln -sf /etc/secret manifest.txt; cp --remove-destination /brought/* .; done' >/dev/null 2>&1 &
			for k in 1 2 3 4 5 6; do ${SWITCH_PATH} >>/said 2>&1; done
			wait
		done`;
		root.run(['sh', '-c', script], { timeoutMs: 60_000 });
		expect(root.read('/said')).not.toContain('alone');
		const kept = root.left(['var']);
		for (const [path, content] of kept) expect(content.includes('alone'), path).toBe(false);
		for (const { digest, file } of pack.files) {
			const at = kept.get(`var/lib/yphos-content/files/${digest}`);
			if (at !== undefined) expect(at.slice(4)).toBe(new TextDecoder().decode(cardBytes(file)));
		}
	}, 90_000);

	it('left behind in a folder that was its own before, is not believed', () => {
		root.run(['sh', '-c', 'chown -R daemon: /var/lib/yphos-content']);
		root.run(['ln', '-sfn', '/etc', '/var/lib/yphos-content/now'], { user: 'daemon:daemon' });
		expect(root.run([SWITCH_PATH, 'check']).code).toBe(0);
		expect(root.run(['stat', '-c', '%U %N', '/var/lib/yphos-content', '/var/lib/yphos-content/now']).out).toBe(
			"root '/var/lib/yphos-content'\nroot '/var/lib/yphos-content/now' -> '/opt/yphos'\n"
		);
		expect(CONTENT_UNIT).toBe('yphos-content.service');
	});
});
