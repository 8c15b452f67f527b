import type { Machine } from './machine';
import { spawn } from './processes';

/** What a line of verify.sh says. unknown: it asks for something that is not simulated, so that its answer is worth nothing. */
export interface Verified {
	readonly label: string;
	readonly is: 'ok' | 'wrong' | 'rests' | 'unknown';
}

/** The longest that one line may take: what waits for something to be played tries twenty times, ten seconds each. */
const LONGEST_MS = 300_000;
const STEP_MS = 100;
const SAID = { 'ok   ': 'ok', WRONG: 'wrong', '--   ': 'rests' } as const;

/**
 * verify.sh on the machine as it stands, each of its lines by itself, so that one which asks for what is not simulated is told from the
 * others. Null: the card has none, none that can be gone through, or the power is gone. The clock goes on meanwhile.
 */
export function verifyOn(machine: Machine): Verified[] | null {
	if (!machine.powered) return null;
	const folder = `${machine.bench.firstPartition}/yphos`;
	const text = machine.disk.read(`${folder}/verify.sh`);
	const at = text?.indexOf('\n\n') ?? -1;
	if (!text || at < 0) return null;
	const head = text.slice(0, at).replace(/^here=.*$/m, `here='${folder}'`);
	return text
		.slice(at)
		.split('\n')
		.filter((line) => line.startsWith('check'))
		.map((line): Verified => {
			const asked = machine.unknowns;
			// Known by what is listed, and there without its bytes.
			const isElsewhere = machine.bench.media.some(
				({ location }) => line.includes(location) && !machine.disk.get(location)
			);
			let out: string | null = null;
			const kill = spawn(
				machine,
				{ argv: ['/usr/bin/bash', '-c', `${head}\n${line}\n`], env: new Map(), stdin: '' },
				(ended) => (out = ended.out)
			);
			const untilMs = machine.clock.nowMs + LONGEST_MS;
			// Where too much happens the clock stands still.
			while (out === null && machine.clock.nowMs < untilMs)
				if (!machine.clock.runUntil(machine.clock.nowMs + STEP_MS)) break;
			kill();
			const [, said, label] = /^(ok {3}|WRONG|-- {3}) (.*)$/m.exec(out ?? '') ?? [];
			if (said === undefined) return { label: /'([^']*)'/.exec(line)?.[1] ?? line, is: 'unknown' };
			return {
				label: label!,
				is: isElsewhere || machine.unknowns > asked ? 'unknown' : SAID[said as keyof typeof SAID]
			};
		});
}
