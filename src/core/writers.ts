/**
 * What each link writes, apart from the chain: files of the card set, steps of the run sheet, and the surroundings that its part of a
 * rehearsal finds. A page that only judges loads nothing of it. A new link that writes: its line here. The order is the chain's.
 */
import { judges } from './judges';
import type { Link } from './link';
import { briefSteps } from './links/brief/steps';
import { cardBench, cardBenchShape } from './links/card/bench';
import { cardFiles, sealCard } from './links/card/files';
import { settingsSheet } from './links/card/sheet';
import { cardSteps } from './links/card/steps';
import { deliveryBench, deliveryBenchShape } from './links/delivery/bench';
import { deliveryFiles } from './links/delivery/files';
import { deliverySteps } from './links/delivery/steps';
import { headerBench, headerBenchShape } from './links/header/bench';
import { headerSteps } from './links/header/steps';
import { heatBench, heatBenchShape } from './links/heat/bench';
import { heatFiles } from './links/heat/files';
import { heatSteps } from './links/heat/steps';
import { networkBench, networkBenchShape } from './links/network/bench';
import { networkFiles } from './links/network/files';
import { networkSteps } from './links/network/steps';
import { noticesBench, noticesBenchShape } from './links/notices/bench';
import { noticesFiles } from './links/notices/files';
import { noticesSteps } from './links/notices/steps';
import { partsBench, partsBenchShape } from './links/parts/bench';
import { partsSteps } from './links/parts/steps';
import { pictureBench, pictureBenchShape } from './links/picture/bench';
import { pictureFiles } from './links/picture/files';
import { pictureSteps } from './links/picture/steps';
import { powerBench, powerBenchShape } from './links/power/bench';
import { powerSteps } from './links/power/steps';
import { programmeFiles } from './links/programme/files';
import { finishFiles } from './links/programme/finishFiles';
import { standInFiles } from './links/programme/standInFiles';
import { programmeSteps } from './links/programme/steps';
import { receivingBench, receivingBenchShape } from './links/receiving/bench';
import { receivingFiles } from './links/receiving/files';
import { receivingSteps } from './links/receiving/steps';
import { soundBench, soundBenchShape } from './links/sound/bench';
import { soundFiles } from './links/sound/files';
import { soundSteps } from './links/sound/steps';
import { sourcesBench, sourcesBenchShape } from './links/sources/bench';
import { sourcesFiles } from './links/sources/files';
import { sourcesSteps } from './links/sources/steps';
import type { LinkId, Plan } from './plan/plan';

type Writer<K extends LinkId> = Pick<Link<K, Plan[K]>, 'files' | 'steps' | 'seal' | 'bench'>;
const WRITERS: { readonly [K in LinkId]: Writer<K> } = {
	brief: { steps: briefSteps },
	parts: { steps: partsSteps, bench: { shape: partsBenchShape, of: partsBench } },
	header: { steps: headerSteps, bench: { shape: headerBenchShape, of: headerBench } },
	power: { steps: powerSteps, bench: { shape: powerBenchShape, of: powerBench } },
	heat: { files: heatFiles, steps: heatSteps, bench: { shape: heatBenchShape, of: heatBench } },
	card: {
		files: (settings, context, claims) => [
			...cardFiles(settings, context, claims),
			settingsSheet(settings, context, claims)
		],
		seal: sealCard,
		bench: { shape: cardBenchShape, of: cardBench },
		steps: cardSteps
	},
	network: { files: networkFiles, steps: networkSteps, bench: { shape: networkBenchShape, of: networkBench } },
	sources: { files: sourcesFiles, steps: sourcesSteps, bench: { shape: sourcesBenchShape, of: sourcesBench } },
	sound: { files: soundFiles, steps: soundSteps, bench: { shape: soundBenchShape, of: soundBench } },
	picture: { files: pictureFiles, steps: pictureSteps, bench: { shape: pictureBenchShape, of: pictureBench } },
	notices: { files: noticesFiles, steps: noticesSteps, bench: { shape: noticesBenchShape, of: noticesBench } },
	programme: {
		files: (settings, context, claims) => [
			...programmeFiles(settings, context, claims),
			...standInFiles(settings, context),
			...finishFiles(settings, context)
		],
		steps: programmeSteps
	},
	receiving: {
		files: receivingFiles,
		steps: receivingSteps,
		bench: { shape: receivingBenchShape, of: receivingBench }
	},
	delivery: { files: deliveryFiles, steps: deliverySteps, bench: { shape: deliveryBenchShape, of: deliveryBench } }
};

/** The links with what judges them and what they write. */
export const writers = judges.map((link) => ({ ...link, ...WRITERS[link.id as LinkId] })) as readonly Link[];
