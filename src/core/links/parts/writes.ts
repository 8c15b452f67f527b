import type { Writes } from '../../manifest';
import { partsBench, partsBenchShape } from './bench';
import type { PartsSettings } from './settings';
import { partsSteps } from './steps';

export default {
	steps: partsSteps,
	bench: { shape: partsBenchShape, of: partsBench }
} satisfies Writes<PartsSettings>;
