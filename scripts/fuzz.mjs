// npm run fuzz: what npm test tries in part, in full: every reader of the list on 10 000 damaged inputs, 500 made-up workshops
// through every engine and every fix, every damage to every card of the demo, and forty kills of a browser while somebody types.
// FUZZ_SEED=n tries other inputs. Hours.
import { ensureBuild } from './build.mjs';
import { run, tool } from './run.mjs';

ensureBuild();
const env = {
	...process.env,
	FUZZ_INPUTS: process.env.FUZZ_INPUTS ?? '10000',
	FUZZ_WORKSHOPS: process.env.FUZZ_WORKSHOPS ?? '500',
	DAMAGES: process.env.DAMAGES ?? 'all',
	KILLS: process.env.KILLS ?? '40'
};
const rooms = ['src/core/readers', 'src/core/engines/anyWorkshop', 'src/core/engines/everyLine'];
const codes = [
	run(tool('vitest'), ['run', ...rooms], { env }),
	run(tool('playwright'), ['test', '--project=killed', '--no-deps'], { env })
];
process.exit(Math.max(...codes));
