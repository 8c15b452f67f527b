import type { Writes } from '../../manifest';
import { programmeFiles } from './files';
import { finishFiles } from './lists/finishFiles';
import type { ProgrammeSettings } from './settings';
import { standInFiles } from './lists/standInFiles';
import { programmeSteps } from './steps';

export default {
	files: (settings, context, claims) => [
		...programmeFiles(settings, context, claims),
		...standInFiles(settings, context),
		...finishFiles(settings, context)
	],
	steps: programmeSteps
} satisfies Writes<ProgrammeSettings>;
