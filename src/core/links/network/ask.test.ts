import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import askScript from './ask.sh?raw';
import { isNear } from './fetching';

/** ask.sh in a real shell, with the real curl, against a server that does what a hostile one would. */
describe('ask.sh', () => {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-ask-'));
	let server: Server;
	let port = 0;
	let asked: string[] = [];
	beforeAll(async () => {
		writeFileSync(join(dir, 'ask.sh'), askScript);
		chmodSync(join(dir, 'ask.sh'), 0o755);
		server = createServer(({ url = '/', headers }, response) => {
			asked.push(`${headers.host}${url}`);
			const to = /^\/to\/(.*)$/.exec(url)?.[1];
			if (to !== undefined) return void response.writeHead(302, { location: decodeURIComponent(to) }).end('moved');
			if (url === '/round') return void response.writeHead(302, { location: '/round' }).end();
			if (url === '/endless') {
				// Chunked: no length is announced.
				const more = (): void => {
					while (!response.destroyed && response.write('x'.repeat(65_536)));
				};
				response.on('drain', more);
				return more();
			}
			if (url === '/absent') return void response.writeHead(404).end('sorry');
			response.end(url === '/bytes' ? Buffer.from([0, 255, 10, 13]) : 'given\n');
		});
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
		port = (server.address() as { port: number }).port;
	});
	afterAll(() => {
		server.closeAllConnections();
		server.close();
		rmSync(dir, { recursive: true });
	});

	/** What names lead to here, as getent tells it. */
	function ask(address: string, { names = {}, near = true }: { names?: Record<string, string>; near?: boolean } = {}) {
		asked = [];
		rmSync(join(dir, 'out'), { force: true });
		const cases = Object.entries(names).map(([name, number]) => `${name}) echo "${number}  STREAM ${name}" ;;`);
		writeFileSync(
			join(dir, 'getent'),
			`#!/bin/sh\ncase $2 in\n${cases.join('\n')}\n*) /usr/bin/getent "$@" ;;\nesac\n`
		);
		chmodSync(join(dir, 'getent'), 0o755);
		if (near) writeFileSync(join(dir, 'near'), '');
		else rmSync(join(dir, 'near'), { force: true });
		return new Promise<{ code: number; said: string; got: string | null }>((done) => {
			const child = spawn(join(dir, 'ask.sh'), [address, join(dir, 'out'), '100000'], {
				env: { PATH: `${dir}:${process.env.PATH}`, YPHOS_NEAR: join(dir, 'near') }
			});
			let said = '';
			child.stderr.on('data', (piece) => (said += piece));
			child.on('close', (code) =>
				done({
					code: code ?? -1,
					said,
					got: existsSync(join(dir, 'out')) ? readFileSync(join(dir, 'out'), 'latin1') : null
				})
			);
		});
	}
	const at = (path: string): string => `http://127.0.0.1:${port}${path}`;

	it('leaves nothing of it to curl: no other scheme, no way round, no redirect, no file of options', async () => {
		const curl = join(dir, 'curl');
		writeFileSync(curl, `#!/bin/sh\nprintf '%s\\n' "$@" >${dir}/args\necho '200 ' >&2\n`);
		chmodSync(curl, 0o755);
		await ask(`http://127.0.0.1:${port}/given`);
		rmSync(curl);
		const args = readFileSync(join(dir, 'args'), 'utf8').split('\n');
		rmSync(join(dir, 'args'));
		expect(args[0]).toBe('--disable');
		const after = (name: string): string | undefined => args[args.indexOf(name) + 1];
		expect([after('--proto'), after('--max-redirs'), after('--noproxy')]).toEqual(['=http,https', '0', '*']);
		expect(args).toContain('--globoff');
	});

	it('gives what stands there, to the byte, and leaves nothing beside it', async () => {
		expect(await ask(at('/x'))).toEqual({ code: 0, said: '', got: 'given\n' });
		expect((await ask(at('/bytes'))).got).toBe('\0\xff\n\r');
		expect((await ask(at(`/to/${encodeURIComponent(at('/x'))}`))).got).toBe('given\n');
		expect(readdirSync(dir).sort()).toEqual(['ask.sh', 'getent', 'near', 'out']);
	});
	it('asks by the number that it has looked at, under the name', async () => {
		const names = { 'files.example': '127.0.0.1' };
		expect((await ask(`http://files.example:${port}/x`, { names })).got).toBe('given\n');
		expect(asked).toEqual([`files.example:${port}/x`]);
	});
	it.each([
		['/endless', /gives more than 100000 bytes/],
		['/absent', /404/],
		['/round', /leads on and on|leads to/],
		['/to/file%3A%2F%2F%2Fetc%2Fpasswd', /leads to file:/],
		['/to/ftp%3A%2F%2Fx%2Fy', /leads to ftp:/]
	])('of %s keeps nothing', async (path, says) => {
		const { code, said, got } = await ask(at(path));
		expect([code, said, got]).toEqual([1, expect.stringMatching(says), null]);
		expect(readdirSync(dir).filter((name) => name.startsWith('out'))).toEqual([]);
	});
	it.each([
		...[
			'127.0.0.1',
			'10.1.2.3',
			'172.16.0.1',
			'172.31.255.1',
			'192.168.1.1',
			'169.254.169.254',
			'100.64.0.1',
			'0.0.0.0',
			'224.0.0.1',
			'255.255.255.255',
			'198.18.0.1'
		],
		...['::1', 'fe80::1', 'fd00::1', '::ffff:10.0.0.1', '64:ff9b::a00:1', '2002:a00:1::1', '2001:0:1::1', 'ff02::1']
	])('asks nobody near unless that is allowed: a name that leads to %s', async (number) => {
		const { code, said } = await ask('http://files.example/x', { names: { 'files.example': number }, near: false });
		expect([code, said]).toEqual([1, expect.stringContaining('is near, and the plan lets nobody near be asked')]);
		expect(asked).toEqual([]);
	});
	it.each([
		'203.0.113.9',
		'172.32.0.1',
		'172.15.0.1',
		'100.10.0.1',
		'100.128.0.1',
		'192.169.0.1',
		'2a00:1450::1',
		'23.4.5.6',
		'2.3.4.5'
	])('takes %s for a number of the whole internet', async (number) => {
		// Nobody is asked: curl is a stand-in that says whom it would ask.
		writeFileSync(
			join(dir, 'curl'),
			'#!/bin/sh\nwhile [ "$1" ]; do [ "$1" != --resolve ] || echo "curl: $2" >&2; shift; done\nexit 7\n'
		);
		chmodSync(join(dir, 'curl'), 0o755);
		const { said } = await ask('http://files.example/x', { names: { 'files.example': number }, near: false });
		rmSync(join(dir, 'curl'));
		expect(said).toContain(`files.example:80:${number.includes(':') ? `[${number}]` : number}`);
	});
	it.each([
		...[
			'http://2130706433/',
			'http://0x7f.1/',
			'http://017700000001/',
			'http://127.1/',
			'http://[::ffff:127.0.0.1]/',
			'http://localhost/'
		],
		...[
			'file:///etc/passwd',
			'http://a@127.0.0.1/',
			'http://x y/',
			'gopher://x/',
			'http:///x',
			'http://x:99x/',
			'http://{a,b}/'
		]
	])('asks nothing of %s', async (address) => {
		const { code, got } = await ask(address, { near: false });
		expect([code, got]).toEqual([1, null]);
		expect(asked).toEqual([]);
	});
	it('follows nobody from outside to who is near', async () => {
		// The first answer comes from outside, as far as the script can know; it leads home.
		const names = { 'outside.example': '127.0.0.1' };
		const script = askScript.replace('0.* | 10.*', '10.*').replace(' | 127.*', '');
		writeFileSync(join(dir, 'ask.sh'), script);
		const to = encodeURIComponent('http://192.168.1.1/admin');
		const { code, said } = await ask(`http://outside.example:${port}/to/${to}`, { names, near: false });
		writeFileSync(join(dir, 'ask.sh'), askScript);
		expect([code, said]).toEqual([1, expect.stringContaining('192.168.1.1 is near')]);
		expect(asked).toHaveLength(1);
	});
});

it.each([
	['http://192.168.40.5/x', true],
	['http://files.local/x', true],
	['http://files/x', true],
	['http://[fd00::1]/x', true],
	['http://127.0.0.1:80/', true],
	['https://files.example/x', false],
	['https://203.0.113.9/', false],
	['https://[2a00:1450::1]/', false]
])('%s is near: %s', (address, near) => expect(isNear(address)).toBe(near));
