// npm run fuzz: every reader of the list on 10 000 damaged inputs, and 500 made-up workshops through every engine and every fix.
// FUZZ_SEED=n tries other inputs.
import { ensurePackages } from './ensure.mjs';
import { run, tool } from './run.mjs';

ensurePackages();
const code = run(tool('vitest'), ['run', 'src/core/readers', 'src/core/engines/anyWorkshop'], {
	env: {
		...process.env,
		FUZZ_INPUTS: process.env.FUZZ_INPUTS ?? '10000',
		FUZZ_WORKSHOPS: process.env.FUZZ_WORKSHOPS ?? '500'
	}
});
process.exit(code);
