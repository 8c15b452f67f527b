import type { Writes } from '../../manifest';
import { heatBench, heatBenchShape } from './bench';
import { heatFiles } from './files';
import type { HeatSettings } from './settings';
import { heatSteps } from './steps';

export default {
	files: heatFiles,
	steps: heatSteps,
	bench: { shape: heatBenchShape, of: heatBench }
} satisfies Writes<HeatSettings>;
