// The server of the built app; `npm run build` puts it at build/index.js. It answers this computer alone, under its own names,
// unless it is told otherwise on its command line: what the environment says of hosts is not obeyed.
import { createServer } from 'node:http';
import { isIP } from 'node:net';

/** On everything that leaves: nothing is guessed, told to others, framed, or shared with another origin; workers are ours alone. */
export const HEADERS = {
	'X-Content-Type-Options': 'nosniff',
	'Referrer-Policy': 'no-referrer',
	'Cross-Origin-Opener-Policy': 'same-origin',
	'Cross-Origin-Embedder-Policy': 'require-corp',
	'Cross-Origin-Resource-Policy': 'same-origin',
	'X-Frame-Options': 'DENY'
};

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

/** @param {Options} options */
export async function serve(options) {
	process.env.ORIGIN ??= `http://127.0.0.1:${options.port}`;
	const { handler } = await import(new URL('./handler.js', import.meta.url).href);
	const server = createServer((request, response) => {
		for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
		if (isOurName(request.headers.host, options)) return handler(request, response);
		response.writeHead(403, { 'Content-Type': 'text/plain; charset=utf-8' });
		response.end(
			'Yphos does not answer to this name. Open it as http://127.0.0.1, or start it with --name and that name.\n'
		);
	});
	await new Promise((done, failed) =>
		server.once('error', failed).listen(options.port, options.lan ? '0.0.0.0' : '127.0.0.1', () => done(null))
	);
	console.log(`Yphos is at http://127.0.0.1:${options.port}. Press Ctrl C to end.`);
	if (options.lan) console.log(WHAT_LAN_MEANS);
	else if (process.env.HOST && !/^(?:127\.|localhost$|::1$)/.test(process.env.HOST))
		console.log(
			`HOST is set to ${process.env.HOST}, which is not obeyed. To answer other computers, start it with --lan.`
		);
	for (const signal of ['SIGINT', 'SIGTERM'])
		process.on(signal, () => {
			server.close(() => process.exit(0));
			server.closeAllConnections();
		});
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
