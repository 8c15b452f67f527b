import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { write } from '../../../engines/write';
import { writeTone } from '../../../formats/wav/wav';
import { judges } from '../../../judges';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';

const ID = 'bunkhouse-lounge';
const lounge = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(judges, demoWorkshop, ID);
const bell = lounge.sources.items[0]!;
const gone = { ...bell, id: 'gone', location: '/srv/music/gone.wav', title: 'Gone' };
const once = (items: Plan['sources']['items']): Plan => ({
	...lounge,
	programme: { ...lounge.programme, loop: 'once', quiet: [], whenGone: 'list' },
	sources: { ...lounge.sources, items }
});
const ends = (plan: Plan): number =>
	rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context, { mediaBytes: demoMediaOf(plan.sources.items) })),
		bench: { ...benchFor(writers, plan, context), media: [] },
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 180_000
	}).events.filter(({ code }) => code === 'list-ends').length;

it('a list that plays once ends, also where an entry of it is gone', () => {
	expect(ends(once([bell]))).toBe(1);
	expect(ends(once([bell, gone]))).toBe(1);
});

it.runIf(spawnSync('mpv', ['--version']).status === 0)('so ends the player itself', () => {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-once-'));
	const tone = writeTone({
		pitchHz: 440,
		peakDbfs: -20,
		sampleRateHz: 48_000,
		bitDepth: 16,
		channels: 1,
		durationMs: 100
	});
	writeFileSync(join(dir, 'tone.wav'), tone);
	const status = (...files: string[]): number | null =>
		spawnSync('mpv', ['--no-config', '--ao=null', '--ao-null-untimed', ...files], { cwd: dir, stdio: 'ignore' }).status;
	expect([status('tone.wav'), status('tone.wav', 'gone.wav'), status('gone.wav')]).toEqual([0, 3, 2]);
	rmSync(dir, { recursive: true });
});
