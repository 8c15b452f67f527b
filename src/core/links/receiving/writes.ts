import type { Writes } from '../../manifest';
import { receivingBench, receivingBenchShape } from './bench';
import { receivingFiles } from './files';
import type { ReceivingSettings } from './settings';
import { receivingSteps } from './steps';

export default {
	files: receivingFiles,
	steps: receivingSteps,
	bench: { shape: receivingBenchShape, of: receivingBench }
} satisfies Writes<ReceivingSettings>;
