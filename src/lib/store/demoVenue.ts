import type { Workshop } from '$core/plan/workshop';
import { demoWorkshop } from '$demo/workshop';

/** Nobody has said yet where the endpoints live: time zone, money and network are those that the demo made up. */
export const isDemoVenue = ({ venue }: Workshop): boolean =>
	(['name', 'timeZone', 'currency'] as const).every((key) => venue[key] === demoWorkshop.venue[key]) &&
	venue.lan?.cidr === demoWorkshop.venue.lan?.cidr;
