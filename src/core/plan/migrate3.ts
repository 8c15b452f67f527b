import { each, fill, isSaved, type Saved } from './saved';

/** Version 3 knew of a card only its reserve and its log, of a network only its name and way. What is new changes nothing by itself. */
export const firstStart = (saved: Saved): Saved => ({
	...saved,
	venue: fill(saved.venue, { lan: null }),
	endpoints: each(saved.endpoints, (endpoint) =>
		isSaved(endpoint.plan)
			? {
					...endpoint,
					plan: {
						...endpoint.plan,
						card: fill(endpoint.plan.card, CARD),
						network: fill(endpoint.plan.network, NETWORK)
					}
				}
			: endpoint
	)
});

const CARD = {
	system: 'plain',
	image: null,
	prepare: 'over',
	bootStyle: 'none',
	bootText: '',
	dailyMb: 20,
	swapMb: 100,
	root: 'writable',
	watchdog: false,
	mendAtStart: true,
	ends: 'cut',
	wroteInMin: null
};
const NETWORK = {
	school: 'files',
	user: '',
	login: 'none',
	sshKeys: [],
	locale: 'C.UTF-8',
	keyboard: 'gb',
	address: { kind: 'free', ip: '' },
	radio: { bandGhz: 2.4, widthMhz: 20, streams: 1, signalDbm: -60, othersPercent: 40 },
	guard: { limited: false, ranges: [], exposed: false },
	pages: []
};
