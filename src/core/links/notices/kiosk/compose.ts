import type { Machine, Process } from '../../../engines/machine';
import { hungEdges } from '../../../standards/edges';
import { READS_FEEDS } from '../places';
import { BROWSER } from './kiosk';
import { readShow, type Tell } from './openedPage';
import { RunningPage } from './runningPage';

/** The compositor has the screen; from there to the first page. Typical of a board with a slow card; on an emulated machine much more. */
const COMPOSITOR_MS = 1500;
const BROWSER_MS = 9000;
/** Without a screen the compositor gives up. Measured on a real start. */
const NO_SCREEN_MS = 10_000;

/** What the compositor needs before it can begin; null: nothing is missing. Source: cage(1), wlroots 0.15; tried on a real start. */
function lacks(machine: Machine, process: Process): string | null {
	const { env, unit } = process;
	const runDir = env.get('XDG_RUNTIME_DIR') ?? '';
	if (!runDir) return 'XDG_RUNTIME_DIR is not set in the environment';
	const refused = machine.systemd.mayWrite(unit, `${runDir}/wayland-0`);
	if (refused || machine.disk.kind(runDir) === null) return `unable to open Wayland socket in ${runDir}`;
	if (env.get('WLR_LIBINPUT_NO_DEVICES') !== '1') return 'libinput initialization failed, no input devices';
	if (env.get('WLR_RENDERER') !== 'pixman') return 'Could not initialize renderer';
	if (machine.disk.packages.get('seatd') !== 'installed') return 'Unable to create seat';
	if (machine.disk.packages.get('xwayland') !== 'installed') return 'Cannot find Xwayland binary';
	return null;
}

/** The compositor, and in it the browser: what stands in the way of the page is told as the programs say it. */
export function compose(machine: Machine, process: Process, tell: Tell): void {
	const args = process.argv.slice(1);
	const split = args.indexOf('--');
	const own = split < 0 ? [] : args.slice(0, split);
	const [browser = '', ...options] = split < 0 ? args : args.slice(split + 1);
	const fails = (why: string, afterMs = 200): void => {
		tell.event('compositor-fails', 'bad', { why });
		machine.emit('player-fails', tell.said('ended', { why }));
		process.err(`${why}\n`);
		process.after(afterMs, () => process.exit(1));
	};
	for (const option of own) if (option !== '-d' && option !== '-r') return fails(`cage: invalid option ${option}`);
	const why = lacks(machine, process);
	if (why !== null) return fails(why);
	if (!machine.disk.isExecutable(browser)) return fails(`Failed to run ${browser}`);
	if (browser !== BROWSER) machine.unknown(`${browser}: what it shows is not known here`);
	const turn = (360 - 90 * own.filter((option) => option === '-r').length) % 360;
	process.after(COMPOSITOR_MS, () => browse(machine, process, tell, turn as 0 | 90 | 180 | 270, options, fails));
}

/** Options that decide whether and how the page is seen. */
const NEEDED: Readonly<Record<string, string>> = {
	'--ozone-platform=wayland': 'the browser finds no display',
	'--kiosk': 'the page does not fill the screen'
};
const KNOWN_OPTIONS = [
	...['--kiosk', '--ozone-platform', '--disable-gpu', '--no-first-run', '--noerrdialogs', '--hide-scrollbars'],
	...['--disable-background-networking', '--disable-component-update', '--disable-sync', '--disable-pinch'],
	...['--overscroll-history-navigation', '--ipc-connection-timeout', '--password-store'],
	...['--allow-file-access-from-files', '--autoplay-policy', '--enable-logging', '--user-data-dir']
];

function browse(
	machine: Machine,
	process: Process,
	tell: Tell,
	turn: 0 | 90 | 180 | 270,
	options: readonly string[],
	fails: (why: string, afterMs?: number) => void
): void {
	if (!machine.systemd.isOther(process.unit)) tell.event('as-root', 'bad');
	for (const option of options)
		if (option.startsWith('--') && !KNOWN_OPTIONS.includes(option.split('=')[0]!))
			machine.unknown(`the browser's option ${option}`);
	const missing = Object.keys(NEEDED).find((option) => !options.includes(option));
	if (missing) return fails(NEEDED[missing]!);
	const kept = options.find((option) => option.startsWith('--user-data-dir='))?.slice('--user-data-dir='.length) ?? '';
	if (kept === '' || machine.systemd.mayWrite(process.unit, kept) !== null)
		return fails(`the browser may not write its profile to ${kept || 'its home'}`);
	const address = options.find((option) => !option.startsWith('--')) ?? '';
	const page = readShow(machine, tell, address);
	const show = page?.show;
	const edges = show ? hungEdges(show.screen.edges, ((360 - turn) % 360) as typeof turn) : null;
	const across = turn % 180 === 0;
	const width = show ? (across ? show.screen.widthPx : show.screen.heightPx) : 1;
	const height = show ? (across ? show.screen.heightPx : show.screen.widthPx) : 1;
	const opened = machine.offers.openScreen?.(process.unit, {
		connector: null,
		mode: 'preferred',
		turnDeg: turn,
		margins: edges
			? { left: edges.left / width, right: edges.right / width, top: edges.top / height, bottom: edges.bottom / height }
			: { left: 0, right: 0, top: 0, bottom: 0 },
		// The page is laid out for all that it has.
		stretches: true,
		levels: 'auto'
	});
	if (opened === undefined || typeof opened === 'string') {
		const said = opened ?? 'this endpoint has no screen';
		tell.event('no-screen', 'bad', { why: said });
		return fails('Found 0 GPUs, cannot create backend', NO_SCREEN_MS);
	}
	process.onKill(() => opened.close());
	tell.event('browser-begins', 'info');
	if (!page) return machine.emit('player-fails', tell.said('white'));
	const mayReadFeeds = options.includes('--allow-file-access-from-files') && address.endsWith(READS_FEEDS);
	process.after(BROWSER_MS, () =>
		new RunningPage({ machine, process, tell, page, screen: opened, mayReadFeeds }).begin()
	);
}
