// The browser for the end-to-end tests: Debian's own, fetched through apt when that can be done.
import { capture, has, run } from './run.mjs';

export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

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
