import type { Machine, Teller } from '../../../engines/machine';
import { linesOf } from '../../../formats/lines';
import { PICTURES_DIR, SHOWN_DIR, TURNS_PATH } from '../places';
import type { NOTICES_WORDS } from '../words';

/** Says what each page's link leads to whenever that changes: from when on its picture was meant, and whether it is there. */
export function rehearsePictures(machine: Machine, tell: Teller<typeof NOTICES_WORDS>): void {
	const shown = new Map<string, string>();
	machine.on('mains-off', () => shown.clear());
	machine.world.onChange(() => {
		for (const [path, to] of machine.disk.links) {
			if (!path.startsWith(`${SHOWN_DIR}/`) || !path.endsWith('.png') || shown.get(path) === to) continue;
			shown.set(path, to);
			const page = path.slice(SHOWN_DIR.length + 1, -'.png'.length);
			if (!machine.disk.get(to)) {
				tell.event('picture-gone', 'bad', { page, path: to });
				continue;
			}
			const [folder, name] = to.split(PICTURES_DIR.slice(PICTURES_DIR.lastIndexOf('/'))) as [string, string];
			const turns = machine.disk.read(folder + TURNS_PATH.slice(TURNS_PATH.lastIndexOf('/'))) ?? '';
			const its = linesOf(turns)
				.map((line) => line.split(' '))
				.filter(([known]) => known === page);
			const isPlain = its.some(([, from, picture]) => from === '0' && `/${picture}` === name);
			const begins = its.map(([, from]) => Number(from) * 1000).filter((utcMs) => utcMs <= machine.believedUtcMs);
			const at = isPlain ? '' : new Date(Math.max(0, ...begins)).toISOString().slice(0, 16).replace('T', ' ');
			tell.event('picture-now', 'info', { page, from: at });
		}
	});
}
