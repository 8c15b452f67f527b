// npm start: installs what is missing, builds when stale, and serves on this machine only.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { resolve } from 'node:path';
import { ensureBuild } from './build.mjs';
import { root } from './run.mjs';

const HOST = process.env.HOST ?? '127.0.0.1';
const WANTED_PORT = Number(process.env.PORT ?? 4180);

const isFree = (port) =>
	new Promise((done) => {
		const probe = createServer().once('error', () => done(false));
		probe.listen(port, HOST, () => probe.close(() => done(true)));
	});

ensureBuild();
let port = WANTED_PORT;
while (!(await isFree(port)) && port < WANTED_PORT + 20) port++;
const server = spawn(process.execPath, [resolve(root, 'build', 'index.js')], {
	env: { ...process.env, HOST, PORT: String(port), ORIGIN: process.env.ORIGIN ?? `http://${HOST}:${port}` },
	stdio: ['ignore', 'ignore', 'inherit']
});
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
console.log(`Yphos is at http://${HOST}:${port} with the demo workshop of Skerrin Light. Press Ctrl C to end.`);
