import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { contextFor } from '../engines/context';
import { write } from '../engines/write';
import { readUnit } from '../formats/systemd/unit';
import { writers } from '../writers';
import { cardBytes } from './cardBytes';
import { targetOf } from './renamed';
import { NO_NETWORK, SANDBOX } from './sandbox';

const UNITS = '/etc/systemd/system/';
/** Units of every demo card, all that may be asked of a phone and fetched added. */
const units = new Map(
	demoWorkshop.endpoints.flatMap(({ id, plan }) => {
		const fuller = { ...plan, picture: { ...plan.picture, phonePassword: true } };
		return write(writers, fuller, contextFor(chain, demoWorkshop, id)).flatMap((file): [string, string][] => {
			const target = targetOf(file);
			return target?.startsWith(UNITS) && /\.service$/.test(target)
				? [[`${id}/${target.slice(UNITS.length)}`, new TextDecoder().decode(cardBytes(file))]]
				: [];
		});
	})
);
/** What asks the network, answers it, or computes for nobody in particular. */
const EXPOSED = /\/yphos-(?:feeds|renew|on-air|pictures|phone@|choose.*|try-.*)\.service$/;

describe('what units may do', () => {
	it('what does something and ends has a limit of time, or may run for ever', () => {
		const endless = [...units].filter(([, text]) => {
			const has = (key: string): boolean => readUnit(text).some((line) => line.key === key);
			return /^Type=oneshot$/m.test(text) && !has('TimeoutStartSec');
		});
		expect(endless.map(([name]) => name)).toEqual([]);
		expect(units.size).toBeGreaterThan(20);
	});

	const has = spawnSync('systemd-analyze', ['--version']).status === 0;
	it.skipIf(!has)('systemd itself judges what is exposed at no more than 3.0 of 10', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-units-'));
		try {
			const judged = [...units].filter(([name]) => EXPOSED.test(name));
			expect(new Set(judged.map(([name]) => name.split('/')[1])).size).toBeGreaterThanOrEqual(4);
			for (const [name, text] of judged) {
				const root = join(dir, name.split('/')[0]!);
				const path = join(root, UNITS, name.split('/')[1]!.replace('@.', '@1.'));
				mkdirSync(dirname(path), { recursive: true });
				writeFileSync(path, text);
				const { status, stdout, stderr } = spawnSync(
					'systemd-analyze',
					['security', '--offline=true', '--threshold=30', '--no-pager', path],
					{ encoding: 'utf8' }
				);
				const said = `${name}: ${stderr}${stdout.split('\n').find((line) => line.includes('Overall exposure')) ?? ''}`;
				expect(status, said).toBe(0);
			}
		} finally {
			rmSync(dir, { recursive: true });
		}
	});

	it.skipIf(!has)('each line of it shuts something: without it systemd finds more that the unit may do', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-lines-'));
		const path = join(dir, UNITS, 'a.service');
		mkdirSync(dirname(path), { recursive: true });
		const found = (lines: readonly string[]): string => {
			writeFileSync(path, ['[Service]', 'ExecStart=/bin/true', 'User=daemon', ...lines, ''].join('\n'));
			return spawnSync('systemd-analyze', ['security', '--offline=true', '--no-pager', path], { encoding: 'utf8' })
				.stdout;
		};
		try {
			const all = [...SANDBOX, ...NO_NETWORK];
			const whole = found(all);
			const idle = all.filter((line) => found(all.filter((other) => other !== line)) === whole);
			// Of these it says nothing: how a refused call ends, one folder among all, and what is so by default.
			expect(idle.filter((line) => !/^(?:SystemCallErrorNumber|InaccessiblePaths|UMask)=/.test(line))).toEqual([]);
		} finally {
			rmSync(dir, { recursive: true });
		}
	});
});
