import { z } from 'zod';
import { briefSettings } from '../links/brief/settings';
import { calmCard, cardSettings } from '../links/card/settings';
import { headerSettings } from '../links/header/settings';
import { heatSettings } from '../links/heat/settings';
import { calmNetwork, networkSettings } from '../links/network/settings';
import { partsSettings } from '../links/parts/settings';
import { powerSettings } from '../links/power/settings';
import { programmeSettings } from '../links/programme/settings';
import { soundSettings } from '../links/sound/settings';
import { sourcesSettings } from '../links/sources/settings';

/** What the person decided about one endpoint, a part for each link of the chain, and nothing derived. */
export const planSchema = z.object({
	brief: briefSettings,
	parts: partsSettings,
	header: headerSettings,
	power: powerSettings,
	heat: heatSettings,
	card: cardSettings,
	network: networkSettings,
	sources: sourcesSettings,
	sound: soundSettings,
	programme: programmeSettings
});
export type Plan = z.infer<typeof planSchema>;
export type LinkId = keyof Plan;

/** A plan to start from: nothing chosen, and every default on the careful side. */
export const emptyPlan = (name: string, hostName: string): Plan => ({
	brief: { name, room: '', purpose: '', kind: 'music', video: null, soundWithinSec: 45, comesBackAlone: true },
	parts: {
		board: null,
		supply: null,
		lead: null,
		card: null,
		converter: null,
		amplifier: null,
		speakers: null,
		screen: null,
		case: null,
		cooler: null,
		also: []
	},
	header: { lines: {} },
	power: { contactMilliohm: 40, onHoursPerDay: 24, shutdownSec: 20, inlet: null },
	heat: { place: 'room', roomC: 22, fanOnC: 60, fanOffC: 50, readings: [], useReadings: false },
	card: calmCard,
	network: calmNetwork(hostName),
	sources: { listTitle: '', header: [], items: [], waitForNetwork: true },
	sound: {
		cardId: '',
		deviceNumber: 0,
		door: 'hw',
		travel: 'follow',
		fixedRateHz: 48_000,
		volumeAt: 'player',
		volumeDb: -12,
		mixerName: '',
		distanceM: 2.5,
		loudestDb: 95
	},
	programme: { startAtBoot: true, loop: 'list', shuffle: false, quiet: [] }
});
