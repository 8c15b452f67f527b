import type { Writes } from '../../manifest';
import { cardBench, cardBenchShape } from './bench';
import { cardFiles, sealCard } from './files';
import type { CardSettings } from './settings';
import { settingsSheet } from './sheet';
import { cardSteps } from './steps';

export default {
	files: (settings, context, claims) => [
		...cardFiles(settings, context, claims),
		settingsSheet(settings, context, claims)
	],
	seal: sealCard,
	steps: cardSteps,
	bench: { shape: cardBenchShape, of: cardBench }
} satisfies Writes<CardSettings>;
