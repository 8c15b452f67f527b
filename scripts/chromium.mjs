// The browser for the end-to-end tests: Debian's own, fetched through apt when that can be done.
import { capture, has, run } from './run.mjs';

export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

/** How it is started: by root too, and without asking anybody for anything. */
export const LAUNCH = {
	executablePath: CHROMIUM,
	args: [
		'--no-sandbox',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
};

export function ensureChromium() {
	if (has(CHROMIUM)) return;
	const isRoot = process.getuid?.() === 0;
	if (isRoot && capture('apt-get', ['--version']).code === 0) {
		console.log('Installing the browser for the end-to-end tests …');
		const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
		run('apt-get', ['update', '-qq'], { env });
		run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], { env });
	}
	if (has(CHROMIUM)) return;
	console.error(
		`The end-to-end tests need Chromium at ${CHROMIUM}. Install it (on Debian: apt-get install chromium), or set CHROMIUM to where it is.`
	);
	process.exit(1);
}
