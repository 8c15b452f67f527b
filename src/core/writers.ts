/**
 * What each link writes, apart from the chain: files of the card set and steps of the run sheet. A page that only judges loads nothing
 * of it. A new link that writes: its line here. The order is the chain's.
 */
import { chain } from './chain';
import type { Link } from './link';
import { briefSteps } from './links/brief/steps';
import { cardFiles, sealCard } from './links/card/files';
import { settingsSheet } from './links/card/sheet';
import { cardSteps } from './links/card/steps';
import { deliveryFiles } from './links/delivery/files';
import { deliverySteps } from './links/delivery/steps';
import { headerSteps } from './links/header/steps';
import { heatFiles } from './links/heat/files';
import { heatSteps } from './links/heat/steps';
import { networkFiles } from './links/network/files';
import { networkSteps } from './links/network/steps';
import { assessNotices } from './links/notices/findings';
import { handIn } from './links/notices/later';
import { noticesFiles } from './links/notices/files';
import { noticesSteps } from './links/notices/steps';
import { partsSteps } from './links/parts/steps';
import { pictureFiles } from './links/picture/files';
import { pictureSteps } from './links/picture/steps';
import { powerSteps } from './links/power/steps';
import { programmeFiles } from './links/programme/files';
import { standInFiles } from './links/programme/standInFiles';
import { programmeSteps } from './links/programme/steps';
import { receivingFiles } from './links/receiving/files';
import { receivingSteps } from './links/receiving/steps';
import { soundFiles } from './links/sound/files';
import { soundSteps } from './links/sound/steps';
import { sourcesFiles } from './links/sources/files';
import { sourcesSteps } from './links/sources/steps';
import type { LinkId, Plan } from './plan/plan';

type Writer<K extends LinkId> = Pick<Link<K, Plan[K]>, 'files' | 'steps' | 'seal'>;
const WRITERS: { readonly [K in LinkId]: Writer<K> } = {
	brief: { steps: briefSteps },
	parts: { steps: partsSteps },
	header: { steps: headerSteps },
	power: { steps: powerSteps },
	heat: { files: heatFiles, steps: heatSteps },
	card: {
		files: (settings, context, claims) => [
			...cardFiles(settings, context, claims),
			settingsSheet(settings, context, claims)
		],
		seal: sealCard,
		steps: cardSteps
	},
	network: { files: networkFiles, steps: networkSteps },
	sources: { files: sourcesFiles, steps: sourcesSteps },
	sound: { files: soundFiles, steps: soundSteps },
	picture: { files: pictureFiles, steps: pictureSteps },
	notices: { files: noticesFiles, steps: noticesSteps },
	programme: {
		files: (settings, context, claims) => [
			...programmeFiles(settings, context, claims),
			...standInFiles(settings, context)
		],
		steps: programmeSteps
	},
	receiving: { files: receivingFiles, steps: receivingSteps },
	delivery: { files: deliveryFiles, steps: deliverySteps }
};

// Whoever has these has room for what judges pages.
handIn(assessNotices);

/** The links with what they write. */
export const writers = chain.map((link) => ({ ...link, ...WRITERS[link.id] })) as unknown as readonly Link[];
