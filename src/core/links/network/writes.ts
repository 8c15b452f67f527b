import type { Writes } from '../../manifest';
import { networkBench, networkBenchShape } from './bench';
import { networkFiles } from './files';
import { networkSecrets } from './secrets';
import type { NetworkSettings } from './settings';
import { networkSteps } from './steps';

export default {
	files: networkFiles,
	secrets: networkSecrets,
	steps: networkSteps,
	bench: { shape: networkBenchShape, of: networkBench }
} satisfies Writes<NetworkSettings>;
