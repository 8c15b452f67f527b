import { each, fill, isSaved, type Saved } from './saved';

/** Parts that version 2 copied into every workshop; from version 3 they come with the app. */
const SHIPPED_IN_2 = new Set([
	...[
		'board-full-4',
		'board-full-1',
		'board-small-512',
		'supply-5-3',
		'supply-5-2a5',
		'supply-5-1',
		'card-32',
		'card-16'
	],
	...['conv-usb-96', 'conv-usb-192', 'conv-usb-16', 'conv-optical', 'conv-jack'],
	...['amp-old', 'amp-mono', 'amp-powered', 'sp-shelf', 'sp-powered']
]);
const PLACES_3 = { lead: null, screen: null, case: null, cooler: null, also: [] };

/**
 * Version 2 kept all parts in the workshop and the power lead as two numbers. Version 3 keeps one's own parts only, the lead
 * as a part, and knows of header, heat, money and the kind of wish.
 */
export function partsFromCatalogue(saved: Saved): Saved {
	const leads: Saved[] = [];
	const endpoints = each(saved.endpoints, (endpoint) => {
		const probe = fill(endpoint.probe, { throttled: null, usbDevices: [] });
		if (!isSaved(endpoint.plan)) return { ...endpoint, probe };
		const plan = endpoint.plan;
		const { leadLengthM, leadAreaMm2, ...power } = isSaved(plan.power) ? plan.power : {};
		const id = `lead-of-${String(endpoint.id)}`;
		const known = typeof leadLengthM === 'number' && typeof leadAreaMm2 === 'number';
		if (known) leads.push(leadPart(id, leadLengthM, leadAreaMm2));
		return {
			...endpoint,
			probe,
			plan: {
				...plan,
				brief: fill(plan.brief, { kind: 'music', video: null }),
				parts: fill(plan.parts, { ...PLACES_3, lead: known ? id : null }),
				header: { lines: {} },
				power: { contactMilliohm: 40, onHoursPerDay: 24, shutdownSec: 20, inlet: null, ...power },
				heat: { place: 'room', roomC: 22, fanOnC: 60, fanOffC: 50, readings: [], useReadings: false }
			}
		};
	});
	const own = Array.isArray(saved.parts)
		? saved.parts.filter((part: unknown) => !(isSaved(part) && SHIPPED_IN_2.has(String(part.id))))
		: saved.parts;
	return {
		...saved,
		venue: fill(saved.venue, { pricePerKwh: 0.3, mainsV: 230 }),
		parts: Array.isArray(own) ? [...(each(own, ownPart) as unknown[]), ...leads] : own,
		owned: {},
		shipping: [],
		endpoints
	};
}

const leadPart = (id: string, lengthM: number, areaMm2: number): Saved => ({
	kind: 'lead',
	id,
	name: `Power lead, ${lengthM}\u2009m, ${areaMm2}\u2009mm²`,
	sure: 'measured',
	source: 'As it stood in the plan.',
	price: null,
	ends: [
		{ plug: 'usb-a', male: true },
		{ plug: 'usb-c', male: true }
	],
	carries: ['power'],
	lengthM,
	areaMm2
});

/** A converter drew so many milliamperes; now every part says what it draws, and from where. */
function ownPart(part: Saved): Saved {
	const { volts, milliamperes, ...rest } = part;
	if (part.kind !== 'converter' || typeof volts !== 'number' || typeof milliamperes !== 'number') return part;
	const watts = (volts * milliamperes) / 1000;
	return {
		...rest,
		draw:
			watts > 0
				? {
						via: part.joint === 'header' || part.joint === 'optical' ? 'header' : 'usb',
						idleW: watts * 0.5,
						typicalW: watts * 0.8,
						peakW: watts,
						surgeW: watts
					}
				: null
	};
}
