import { BY_HAND_PATH } from '../../../files/byHand';
import { letsIn, passwordHash, tellerFor, type Machine, type Teller } from '../../../engines/machine';
import { toBase64 } from '../../../formats/base64';
import { spawn } from '../../../engines/machine/processes';
import { readExec, readUnit } from '../../../formats/systemd/unit';
import { PHONE_PORT, PHONE_UNITS } from '../places';
import { PICTURE_WORDS } from '../words';

const [SOCKET] = PHONE_UNITS;
const ANSWERED_BY = 'yphos-phone@.service';

/** Somebody with a phone: opens the page, presses its button as a browser would, and plugs the endpoint in again afterwards. */
export function rehearsePhone(machine: Machine): void {
	const tell = tellerFor(machine, 'picture', PICTURE_WORDS);
	/** A board that shut itself down waits for somebody; one whose power went does not. */
	let isDown = false;
	/** What lies below /run is gone with the power; systemd-tmpfiles makes it anew. */
	machine.on('mains-off', () => void machine.disk.remove(BY_HAND_PATH));
	machine.on('fault', ({ name, on }) => {
		if (name === 'phone-shows') press(machine, tell, on);
		if (name !== 'phone-shut-down') return;
		if (!on) {
			if (isDown) machine.mains(true);
			return;
		}
		isDown = false;
		if (!isAnswered(machine)) return tell.event('phone-nobody', 'fault');
		const host = `${machine.disk.read('/etc/hostname')?.trim() ?? ''}.local:${PHONE_PORT}`;
		const refused = (answer: string): void => tell.event('phone-refused', 'bad', { answer });
		ask(machine, [`GET / HTTP/1.1`, `Host: ${host}`], (status, page) => {
			if (status !== '200 OK') return refused(status);
			if (!/<form method="post" action="\/shut-down"><button>/.test(page)) return refused('a page without that button');
			tell.event('phone-asked', 'fault');
			ask(machine, ['POST /shut-down HTTP/1.1', `Host: ${host}`, `Origin: http://${host}`], (done) => {
				if (done === '200 OK') isDown = true;
				else refused(done);
			});
		});
	});
}

/** The first button of a page, and later the one that takes it back, as a browser would press them. */
function press(machine: Machine, tell: Teller<typeof PICTURE_WORDS>, first: boolean): void {
	if (!isAnswered(machine)) return tell.event('phone-nobody', 'fault');
	const host = `${machine.disk.read('/etc/hostname')?.trim() ?? ''}.local:${PHONE_PORT}`;
	const refused = (answer: string): void => tell.event('phone-refused', 'bad', { answer });
	ask(machine, [`GET / HTTP/1.1`, `Host: ${host}`], (status, page) => {
		if (status !== '200 OK') return refused(status);
		const [, word, words] =
			(first ? /action="\/(show-[\w-]+)"><button>([^<]*)/ : /action="\/(back-to-rules)"><button>([^<]*)/).exec(page) ??
			[];
		if (word === undefined) return refused('a page without such a button');
		tell.event('phone-shows', 'fault', { words: words! });
		ask(machine, [`POST /${word} HTTP/1.1`, `Host: ${host}`, `Origin: http://${host}`], (done) => {
			if (done !== '303 See Other') refused(done);
		});
	});
}

/** Whether anything takes a connection there, and lets it in. Source: systemd.socket(5). */
function isAnswered(machine: Machine): boolean {
	const { disk, systemd, bench } = machine;
	const socket = new Map(readUnit(disk.unit(SOCKET)?.text ?? '').map(({ key, value }) => [key, value]));
	const listens = socket.get('ListenStream') === String(PHONE_PORT) && socket.get('Accept') === 'yes';
	if (!machine.powered || !machine.online || !systemd.isActive(SOCKET) || !listens) return false;
	return letsIn(machine, { from: bench.phoneAt, protocol: 'tcp', port: PHONE_PORT });
}

/** The one that somebody is taken to type here. */
const TYPED = 'as somebody typed it';

/**
 * The same with a password, where the page asks for one: what a browser asks a person, and sends from then on. Nobody knows it here, so
 * another stands in for it on the simulated disk, in what the script compares with.
 */
function ask(machine: Machine, head: readonly string[], done: (status: string, body: string) => void): void {
	connect(machine, head, (status, body) => {
		if (status !== '401 Unauthorized') return done(status, body);
		const { disk } = machine;
		const path = credentialOf(machine)?.path ?? '';
		const known = disk.get(path);
		if (!known) return done(status, body);
		machine.assumed.add('whoever presses a button knows its password');
		disk.put(path, { ...known, text: `${passwordHash(known.text.trim() || NO_PASSWORD, TYPED)}\n` });
		const said = toBase64(new TextEncoder().encode(`somebody:${TYPED}`));
		connect(machine, [...head, `Authorization: Basic ${said}`], done);
	});
}

/** A set that was written without its password, to be rehearsed alone. */
const NO_PASSWORD = '$6$rounds=1000$nobody$';
const CREDENTIALS = '/run/credentials/yphos-phone';
/** What its unit hands to whoever answers. Source: systemd.exec(5), LoadCredential=. */
function credentialOf({ disk }: Machine): { readonly id: string; readonly path: string } | null {
	const line = readUnit(disk.unit(ANSWERED_BY)?.text ?? '').find(({ key }) => key === 'LoadCredential')?.value;
	const [, id, path] = /^([^:]+):(\/.*)$/.exec(line ?? '') ?? [];
	return id === undefined ? null : { id, path: path! };
}

/** One connection: the service of the socket, with the request on its standard input. */
function connect(machine: Machine, head: readonly string[], done: (status: string, body: string) => void): void {
	const service = new Map(readUnit(machine.disk.unit(ANSWERED_BY)?.text ?? '').map(({ key, value }) => [key, value]));
	const argv = readExec(service.get('ExecStart') ?? '')?.words ?? [];
	const speaks = service.get('StandardInput') === 'socket' && service.get('StandardOutput') === 'socket';
	if (argv.length === 0 || !speaks) return done('nothing', '');
	const env = new Map<string, string>();
	const credential = credentialOf(machine);
	if (credential) {
		const file = machine.disk.get(credential.path);
		// Without it the service is not started at all.
		if (!file) return done('nothing', '');
		machine.disk.put(`${CREDENTIALS}/${credential.id}`, { ...file, mode: '0644' });
		env.set('CREDENTIALS_DIRECTORY', CREDENTIALS);
	}
	const stdin = [...head, 'Content-Length: 0', '', ''].join('\r\n');
	spawn(machine, { argv, env, stdin, stdinFile: null, unit: ANSWERED_BY }, ({ out }) => {
		const [first = '', ...rest] = out.split('\r\n\r\n');
		done(/^HTTP\/1\.1 (\d+ [\w ]+)\r\n/.exec(first)?.[1] ?? 'nothing', rest.join(''));
	});
}
