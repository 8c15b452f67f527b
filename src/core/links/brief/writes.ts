import type { Writes } from '../../manifest';
import type { BriefSettings } from './settings';
import { briefSteps } from './steps';

export default {
	steps: briefSteps
} satisfies Writes<BriefSettings>;
