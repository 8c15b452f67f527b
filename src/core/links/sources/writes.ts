import type { Writes } from '../../manifest';
import { sourcesBench, sourcesBenchShape } from './bench';
import { sourcesFiles } from './files';
import { sourcesSecrets } from './secrets';
import type { SourcesSettings } from './settings';
import { sourcesSteps } from './steps';

export default {
	files: sourcesFiles,
	secrets: sourcesSecrets,
	steps: sourcesSteps,
	bench: { shape: sourcesBenchShape, of: sourcesBench }
} satisfies Writes<SourcesSettings>;
