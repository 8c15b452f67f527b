import type { Writes } from '../../manifest';
import { noticesBench, noticesBenchShape } from './bench';
import { noticesFiles } from './files';
import type { NoticesSettings } from './settings';
import { noticesSteps } from './steps';

export default {
	files: noticesFiles,
	steps: noticesSteps,
	bench: { shape: noticesBenchShape, of: noticesBench }
} satisfies Writes<NoticesSettings>;
