// npm start: installs what is missing, builds when stale, and serves on this machine only; `npm start -- --lan` says more.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { resolve } from 'node:path';
import { ensureBuild } from './build.mjs';
import { root } from './run.mjs';

const given = process.argv.slice(2);
const WANTED_PORT = 4180;

const isFree = (port) =>
	new Promise((done) => {
		const probe = createServer().once('error', () => done(false));
		probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
	});

ensureBuild();
let port = Number(process.env.PORT ?? WANTED_PORT);
while (!given.includes('--port') && !(await isFree(port)) && port < WANTED_PORT + 20) port++;
const server = spawn(
	process.execPath,
	[resolve(root, 'build', 'index.js'), ...(given.includes('--port') ? [] : ['--port', String(port)]), ...given],
	{ stdio: ['ignore', 'inherit', 'inherit'] }
);
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
