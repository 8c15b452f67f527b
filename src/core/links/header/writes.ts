import type { Writes } from '../../manifest';
import { headerBench, headerBenchShape } from './bench';
import type { HeaderSettings } from './settings';
import { headerSteps } from './steps';

export default {
	steps: headerSteps,
	bench: { shape: headerBenchShape, of: headerBench }
} satisfies Writes<HeaderSettings>;
