import { expect, it } from 'vitest';
import { demoMediaOf } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { judges } from '../../judges';
import { rehearsed } from '../../rehearsals';
import { writers } from '../../writers';
import { benchFor } from '../benchFor';
import { contextFor } from '../context';
import { rehearse } from '../rehearse';
import { write } from '../write';
import { readProbe } from '../../probe/read';
import { cardTree, Disk, Machine, spawn, verifyOn } from '.';
import type { Bench } from './bench';

function run(id: string, atUtc: string, change: (bench: Bench) => Bench = (bench) => bench, verifies = true) {
	const { plan } = demoWorkshop.endpoints.find((endpoint) => endpoint.id === id)!;
	const context = contextFor(judges, demoWorkshop, id);
	return rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context, { mediaBytes: demoMediaOf(plan.sources.items) })),
		bench: change(benchFor(writers, plan, context)),
		startUtcMs: Date.parse(atUtc),
		forMs: 300_000,
		verifies
	});
}
const said = (rehearsal: ReturnType<typeof run>, is: string): string[] =>
	rehearsal.verified!.filter((line) => line.is === is).map(({ label }) => label);

it('verify.sh agrees on the rehearsed endpoint, and tells what is not simulated from what is', () => {
	const found = run('bunkhouse-lounge', '2026-11-28T12:30:00Z');
	expect(said(found, 'wrong')).toEqual([]);
	expect(said(found, 'ok')).toEqual(
		expect.arrayContaining([
			'it is called as planned',
			'its clock shows the planned time zone',
			'something is being played',
			'/export/music on 192.168.40.5 can be read',
			'the player runs, unless it is quiet'
		])
	);
	expect(said(found, 'unknown')).toContain('the firewall lets in only the allowed addresses');
});

it('what is asked at the end is no part of what happened', () => {
	const asked = run('bunkhouse-lounge', '2026-11-28T12:30:00Z');
	const { verified, ...plain } = run('bunkhouse-lounge', '2026-11-28T12:30:00Z', undefined, false);
	expect(verified).toBeNull();
	expect({ ...asked, verified: null }).toEqual({ ...plain, verified: null });
});

it('it says what is wrong: another release, a converter that is not there, a share that is not', () => {
	const none = run('bunkhouse-lounge', '2026-11-28T12:30:00Z', (bench) => ({ ...bench, soundCards: [] }));
	expect(said(none, 'wrong')).toEqual(
		expect.arrayContaining(['the converter Field24 is present', 'something is being played'])
	);
	const shareless = run('bunkhouse-lounge', '2026-11-28T12:30:00Z', (bench) => ({ ...bench, stores: [] }));
	expect(said(shareless, 'wrong')).toContain('/export/music on 192.168.40.5 can be read');
	expect(said(run('lamp-room', '2026-11-28T12:30:00Z'), 'wrong')).toContain('the converter Header192 is present');
});

it('of a machine without power, or one in which too much happens, nothing is said, and the end comes', () => {
	const { plan } = demoWorkshop.endpoints[0]!;
	const bench = benchFor(writers, plan, contextFor(judges, demoWorkshop, demoWorkshop.endpoints[0]!.id));
	const machine = new Machine({ card: new Map(), disk: new Disk(), bench, startUtcMs: 0, timeZone: 'UTC' });
	machine.disk.put(`${bench.firstPartition}/yphos/verify.sh`, {
		text: "#!/bin/bash\n\ncheck 'one' true\n",
		bytes: null
	});
	expect(verifyOn(machine)).toBeNull();
	machine.mains(true);
	// Something that comes again and again at the same instant uses up the clock.
	const again = (): void => machine.clock.at(machine.clock.nowMs, again);
	again();
	expect(machine.clock.runUntil(1000)).toBe(false);
	expect(verifyOn(machine)).toEqual([{ label: 'one', is: 'unknown' }]);
});

it('in quiet hours the player rests', () => {
	expect(said(run('bunkhouse-lounge', '2026-11-28T23:30:00Z'), 'rests')).toEqual([
		'something is being played: the player rests now'
	]);
});

it('probe.sh runs to its end there too, and what it prints is read as from a board', () => {
	const { plan } = demoWorkshop.endpoints.find(({ id }) => id === 'bunkhouse-lounge')!;
	const context = contextFor(judges, demoWorkshop, 'bunkhouse-lounge');
	let printed = '';
	const probing = {
		id: 'brief' as const,
		words: {},
		rehearse: (machine: Machine) =>
			machine.on('userspace', () =>
				machine.after(60_000, () =>
					spawn(
						machine,
						{ argv: ['/usr/bin/sh', `${machine.bench.firstPartition}/yphos/probe.sh`], env: new Map(), stdin: '' },
						({ out }) => (printed = out)
					)
				)
			)
	};
	rehearse({
		links: [...rehearsed, probing],
		card: cardTree(write(writers, plan, context, { mediaBytes: demoMediaOf(plan.sources.items) })),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.parse('2026-11-28T12:30:00Z'),
		forMs: 120_000
	});
	expect(printed).toContain('=== end of probe ===');
	const read = readProbe(printed);
	expect(read.ok ? read.value.understood.join() : read.faults[0]!.message).toContain('system');
});
