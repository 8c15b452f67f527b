import type { Writes } from '../../manifest';
import { pictureBench, pictureBenchShape } from './bench';
import { pictureFiles } from './files';
import { pictureSecrets } from './secrets';
import type { PictureSettings } from './settings';
import { pictureSteps } from './steps';

export default {
	files: pictureFiles,
	secrets: pictureSecrets,
	steps: pictureSteps,
	bench: { shape: pictureBenchShape, of: pictureBench }
} satisfies Writes<PictureSettings>;
