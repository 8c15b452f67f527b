import type { Writes } from '../../manifest';
import { powerBench, powerBenchShape } from './bench';
import type { PowerSettings } from './settings';
import { powerSteps } from './steps';

export default {
	steps: powerSteps,
	bench: { shape: powerBenchShape, of: powerBench }
} satisfies Writes<PowerSettings>;
