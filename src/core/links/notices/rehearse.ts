import { tellerFor, type Machine } from '../../engines/machine';
import { PLAYER_UNIT } from '../../files/cardFile';
import { CONTENT_TRYING } from '../../files/content';
import { rehearsePictures } from './drawn/rehearsePictures';
import { ALIVE, ALIVE_PATH, MISSED_PATH, MOST_MISSED } from './kiosk/alive';
import { compose } from './kiosk/compose';
import { crashes } from './kiosk/runningPage';
import { NOTICES_WORDS } from './words';

/** The compositor with its browser, the page by its own clock, and the program that fetches feeds. */
export default function rehearseNotices(machine: Machine): void {
	const tell = tellerFor(machine, 'notices', NOTICES_WORDS);
	machine.programs.set('/usr/bin/cage', (process) => compose(machine, process, tell));
	machine.web.push((address) => {
		const feed = machine.bench.feeds.find((known) => known.address === address);
		if (!feed) return null;
		if (machine.activeFaults.has('feed-refuses')) return { code: 22, why: 'The requested URL returned error: 503' };
		return { text: machine.activeFaults.has('feed-wrong') ? '<p>Sorry, back soon.</p>\n' : feed.text, bytes: null };
	});
	rehearseAlive(machine);
	rehearsePictures(machine, tell);
	machine.on('fault', ({ name, on }) => {
		if (name === 'page-crashes' && on) {
			for (const crash of crashes.get(machine) ?? []) crash();
		}
		if (name === 'feed-refuses') tell.event(on ? 'feed-refuses' : 'feed-answers', 'fault');
	});
}

/** What page-alive.sh does, by heart: it is run hundreds of times a day. That the script does the same is shown in a real shell. */
function rehearseAlive(machine: Machine): void {
	const { disk } = machine;
	// What lies below /run is gone with the power.
	machine.on('mains-off', () => {
		disk.remove(MISSED_PATH);
		crashes.delete(machine);
	});
	const isAlive = (): boolean => (crashes.get(machine)?.size ?? 0) > 0;
	machine.byHeart.set(ALIVE_PATH, {
		text: `${ALIVE.join('\n')}\n`,
		idles: () => isAlive() && disk.get(MISSED_PATH) === undefined,
		program: (process) => {
			const onTrial = disk.get(CONTENT_TRYING) !== undefined;
			if (onTrial || isAlive() || !machine.systemd.isActive(PLAYER_UNIT)) disk.remove(MISSED_PATH);
			else {
				const times = Number(disk.read(MISSED_PATH) ?? 0) + 1;
				if (times < MOST_MISSED) disk.put(MISSED_PATH, { text: `${times}\n`, bytes: null });
				else {
					disk.remove(MISSED_PATH);
					process.err('the page has been silent for minutes: the browser is begun anew\n');
					machine.systemd.stop(PLAYER_UNIT);
					machine.systemd.start(PLAYER_UNIT);
				}
			}
			process.exit(0);
		}
	});
}
