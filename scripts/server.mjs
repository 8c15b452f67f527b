// The server of the built app; `npm run build` puts it at build/index.js. It answers this computer alone, under its own names,
// unless it is told otherwise on its command line: what the environment says of hosts is not obeyed.
import { createServer } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { createServer as createDoor, isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { resolve } from 'node:path';
import { certificateFor } from './certificate.mjs';

/** On everything that leaves: nothing is guessed, told to others, framed, or shared with another origin; workers are ours alone. */
export const HEADERS = {
	'X-Content-Type-Options': 'nosniff',
	'Referrer-Policy': 'no-referrer',
	'Cross-Origin-Opener-Policy': 'same-origin',
	'Cross-Origin-Embedder-Policy': 'require-corp',
	'Cross-Origin-Resource-Policy': 'same-origin',
	'X-Frame-Options': 'DENY',
	'Permissions-Policy': 'camera=(), geolocation=(), payment=(), usb=(), serial=()'
};
/** On what is neither the shell, which has a policy of its own, nor a script of ours: nothing in it is run or shown in a frame. */
const NOTHING = "default-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";
/** The scheme by which a request came, for the framework; what a stranger says in it is written over. */
const SCHEME = 'x-yphos-scheme';
const SHAKES_HANDS = 22;

const USAGE = `node build/index.js [--port N] [--lan] [--name HOST]…

  --port N      the port, 4180 unless said otherwise
  --lan         answer other computers of the network too, by this one's address
  --name HOST   answer to this host name as well, such as workbench.local
`;
const WHAT_LAN_MEANS =
	'It answers every computer of your network, without a password: whoever reaches it can use the app. What you keep stays in each\n' +
	'browser; only this program is shared. Do not do this in a network of strangers, and never forward the port in a router.';

/** @typedef {{ port: number, lan: boolean, names: string[] }} Options */

/**
 * @param {readonly string[]} argv
 * @returns {Options | null} null: something in it is not known
 */
export function readArguments(argv) {
	/** @type {Options} */
	const options = { port: 4180, lan: false, names: [] };
	for (let n = 0; n < argv.length; n++) {
		if (argv[n] === '--lan') options.lan = true;
		else if (argv[n] === '--port' && /^\d{1,5}$/.test(argv[n + 1] ?? '') && Number(argv[n + 1]) < 65_536)
			options.port = Number(argv[++n]);
		else if (argv[n] === '--name' && /^[a-z0-9.-]{1,253}$/i.test(argv[n + 1] ?? ''))
			options.names.push(String(argv[++n]).toLowerCase());
		else return null;
	}
	return options;
}

/**
 * Whether a request is meant for us. A page of strangers can let its own name point at this computer; such a request still
 * carries that name.
 * @param {string | undefined} hostHeader
 * @param {Pick<Options, 'lan' | 'names'>} options
 */
export function isOurName(hostHeader, { lan, names }) {
	const host = /^(\[[0-9a-f:.]+\]|[^:]+)(?::\d{1,5})?$/i.exec(hostHeader ?? '')?.[1]?.toLowerCase();
	if (host === undefined) return false;
	if (host === 'localhost' || host === '127.0.0.1' || host === '[::1]' || names.includes(host)) return true;
	return lan && isIP(host.replace(/^\[|\]$/g, '')) !== 0;
}

/** Addresses by which other computers reach this one; link-local ones need a zone that no address bar takes. */
const ownAddresses = () =>
	Object.values(networkInterfaces())
		.flatMap((all) => all ?? [])
		.filter(({ internal, address }) => !internal && !/^(?:fe80:|169\.254\.)/i.test(address))
		.map(({ address }) => address);

/**
 * @param {Options} options
 * @param {string} dir where the certificate is kept
 */
export async function serve(options, dir = resolve(import.meta.dirname, '..', '.cache', 'server')) {
	// Each request says by which scheme and name it came: a page from elsewhere is told from our own by both.
	delete process.env.ORIGIN;
	process.env.PROTOCOL_HEADER = SCHEME;
	process.env.HOST_HEADER = 'host';
	const { handler } = await import(new URL('./handler.js', import.meta.url).href);
	/** @param {'http' | 'https'} scheme */
	const answer =
		(scheme) =>
		/** @type {import('node:http').RequestListener} */
		(request, response) => {
			for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
			if (!/^\/(?:_app\/|service-worker\.js)/.test(request.url ?? '')) {
				response.setHeader('Content-Security-Policy', NOTHING);
				// What a "not modified" says is written over what the browser keeps: the shell's own policy. Source: RFC 9111, 4.3.4.
				const { writeHead } = response;
				response.writeHead = /** @type {typeof writeHead} */ (
					(/** @type {number} */ status, /** @type {any[]} */ ...rest) => {
						if (status === 304) response.removeHeader('Content-Security-Policy');
						return writeHead.call(response, status, ...rest);
					}
				);
			}
			request.headers[SCHEME] = scheme;
			if (isOurName(request.headers.host, options)) return handler(request, response);
			response.writeHead(403, { 'Content-Type': 'text/plain; charset=utf-8' });
			response.end(
				'Yphos does not answer to this name. Open it as http://127.0.0.1, or start it with --name and that name.\n'
			);
		};
	/** @type {import('node:net').Server[]} */
	const servers = [];
	/** @param {import('node:net').Server} server @param {string} host */
	const listen = async (server, host) => {
		await new Promise((done, failed) => server.once('error', failed).listen(options.port, host, () => done(null)));
		servers.push(server);
	};
	await listen(createServer(answer('http')), '127.0.0.1');
	console.log(`Yphos is at http://127.0.0.1:${options.port}. Press Ctrl C to end.`);
	if (options.lan) {
		const addresses = ownAddresses();
		const { key, cert, fingerprint, isNew } = await certificateFor(dir, [...addresses, ...options.names]);
		const secure = createSecureServer({ key, cert }, answer('https'));
		for (const address of addresses) await listen(doorTo(secure, options), address);
		for (const host of [...options.names, ...addresses.map((one) => (isIP(one) === 6 ? `[${one}]` : one))])
			console.log(`Other computers: https://${host}:${options.port}`);
		console.log(
			`${isNew ? 'A certificate was made for this. ' : ''}No authority has signed it, so each browser asks once. Compare before you go on; SHA-256 fingerprint:\n  ${fingerprint}`
		);
		console.log(WHAT_LAN_MEANS);
	} else if (process.env.HOST && !/^(?:127\.|localhost$|::1$)/.test(process.env.HOST))
		console.log(
			`HOST is set to ${process.env.HOST}, which is not obeyed. To answer other computers, start it with --lan.`
		);
	for (const signal of ['SIGINT', 'SIGTERM'])
		process.on(signal, () => {
			for (const server of servers) server.close();
			process.exit(0);
		});
}

/**
 * Over an address that is not this computer's own alone a browser offers half of what the app needs unless it is encrypted: whoever
 * comes without is sent on. Which of the two it is shows in the first byte. Source: RFC 8446, 5.1.
 * @param {import('node:https').Server} secure
 * @param {Pick<Options, 'lan' | 'names' | 'port'>} options
 */
function doorTo(secure, options) {
	const sendOn = createServer((request, response) => {
		const { host } = request.headers;
		if (!isOurName(host, options)) return void response.writeHead(403).end();
		response.writeHead(308, { ...HEADERS, Location: `https://${host}${encodeURI(decodePath(request.url))}` }).end();
	});
	return createDoor((socket) => {
		socket.on('error', () => socket.destroy());
		socket.setTimeout(10_000, () => socket.destroy());
		socket.once('data', (first) => {
			socket.setTimeout(0);
			socket.pause();
			socket.unshift(first);
			(first[0] === SHAKES_HANDS ? secure : sendOn).emit('connection', socket);
			process.nextTick(() => socket.resume());
		});
	});
}
/** A path of ours, or the shell's. @param {string | undefined} url */
function decodePath(url) {
	try {
		return /^\/(?!\/)[^\\]*$/.test(url ?? '') ? decodeURI(url ?? '/') : '/';
	} catch {
		return '/';
	}
}

if (process.argv[1] === import.meta.filename) {
	const options = readArguments(process.argv.slice(2));
	if (!options) {
		console.error(USAGE);
		process.exit(2);
	}
	serve(options).catch((error) => {
		console.error(error.code === 'EADDRINUSE' ? `Port ${options.port} is taken. Choose another with --port.` : error);
		process.exit(1);
	});
}
