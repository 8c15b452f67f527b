import type { Writes } from '../../manifest';
import { soundBench, soundBenchShape } from './bench';
import { soundFiles } from './files';
import type { SoundSettings } from './settings';
import { soundSteps } from './steps';

export default {
	files: soundFiles,
	steps: soundSteps,
	bench: { shape: soundBenchShape, of: soundBench }
} satisfies Writes<SoundSettings>;
