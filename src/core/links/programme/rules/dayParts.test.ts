import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { plainHatchWorkshop } from '../../../../../demo/plainHatch';
import { chain } from '../../../chain';
import { contextFor } from '../../../engines/context';
import { derive } from '../../../engines/derive';
import { readM3u, readXspf } from '../../../formats/playlist';
import { programmeBook } from '../../../onAir/book';
import { itemsOf } from '../../../onAir/items';
import { onAirAt } from '../../../onAir/onAir';
import { dayPartsOf } from './dayParts';

const { plan } = plainHatchWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!;
const { context } = derive(chain, plan, contextFor(chain, plainHatchWorkshop, 'ticket-hatch'));
const book = programmeBook(plan.programme, context.venue);
const FROM = Date.parse('2026-10-23T00:00:00Z');
const UNTIL = FROM + 7 * 86_400_000;
const items = (show: string) => itemsOf(show, plan.programme, context);
const files = dayPartsOf(
	{ name: 'Hatch\n%n "one"', book, items, placeOf: ({ location }) => `media/${location}` },
	FROM,
	UNTIL
);
const textOf = (path: string): string => files.find((file) => file.path === path)!.text;
const shows = files.flatMap(({ path }) => /^([^/]+)\.m3u8$/.exec(path)?.[1] ?? []);

describe('a week as playlists with timers', () => {
	it('has each list in both formats, in order, as it is played', () => {
		expect(shows.length).toBeGreaterThan(1);
		for (const show of shows) {
			const wanted = items(show).map(({ location, title }) => [`media/${location}`, title]);
			for (const list of [readM3u(textOf(`${show}.m3u8`)), readXspf(textOf(`${show}.xspf`))])
				expect(list.ok && list.value.entries.map(({ location, title }) => [location, title])).toEqual(wanted);
		}
	});
	it('its timers, the last of which counts, say at each sixth minute what the resolver says, over the change of the clock', () => {
		const begins = files
			.flatMap(({ path, text }) => {
				const part = /part-(.+)\.timer$/.exec(path)?.[1];
				return part === undefined
					? []
					: [...text.matchAll(/^OnCalendar=(.+) UTC$/gm)].map((row) => ({
							part,
							at: Date.parse(`${row[1]!.replace(' ', 'T')}Z`)
						}));
			})
			.sort((a, b) => a.at - b.at);
		for (let at = FROM; at < UNTIL; at += 360_000) {
			const { show } = onAirAt(book, at);
			const part = begins.findLast((one) => one.at <= at)!.part;
			expect(part, new Date(at).toISOString()).toBe(shows.includes(show) ? show : 'nothing');
		}
	});
	const folder = mkdtempSync(join(tmpdir(), 'yphos-parts-'));
	afterAll(() => rmSync(folder, { recursive: true }));
	it.skipIf(spawnSync('systemd-analyze', ['--version']).error)(
		'systemd takes every unit, and each time as it is meant',
		() => {
			mkdirSync(join(folder, 'systemd'));
			for (const { path, text } of files) writeFileSync(join(folder, path), text);
			const units = files.flatMap(({ path }) => (path.startsWith('systemd/') ? [join(folder, path)] : []));
			const verified = spawnSync('systemd-analyze', ['verify', '--user', ...units], {
				encoding: 'utf8',
				env: { ...process.env, XDG_RUNTIME_DIR: folder }
			});
			expect(verified.stderr.split('\n').filter((line) => line.includes('part-'))).toEqual([]);
			const [time] = /OnCalendar=.+/.exec(textOf(`systemd/part-${shows[0]}.timer`))!;
			const seen = spawnSync(
				'systemd-analyze',
				['calendar', '--base-time=2020-01-01', time.slice('OnCalendar='.length)],
				{
					encoding: 'utf8'
				}
			);
			expect(seen.stdout).toContain(time.slice('OnCalendar='.length, -4));
		}
	);
	it('services of its parts exclude one another', () => {
		const parts = files.flatMap(({ path }) => /part-(.+)\.service$/.exec(path)?.[1] ?? []);
		for (const part of parts) {
			const others = parts.filter((one) => one !== part).map((one) => `part-${one}.service`);
			expect(/^Conflicts=(.*)$/m.exec(textOf(`systemd/part-${part}.service`))?.[1]?.split(' ')).toEqual(others);
		}
	});
});
