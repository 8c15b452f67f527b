import { z } from 'zod';
import { lineText, timeOfDay } from '../../basics/text';

/** An address or a folder; what a shell or curl would take for something else is not let in. Source: RFC 3986, 2. */
const PLACE = /^(?:https?:\/\/[A-Za-z0-9][A-Za-z0-9.-]*(?::\d{1,5})?)?(?:\/[A-Za-z0-9._~-]+)*\/?$/;
/** A public key on the curve P-256, SubjectPublicKeyInfo in base64. Source: RFC 5480, 2; SEC 1, 2.3.3. */
const PUBLIC_KEY = /^(?:MFkwEwYHKoZIzj0CAQYIKoZIzj0DAQcDQgAE[A-Za-z0-9+/]{86}==)?$/;

/** The schema of the delivery's slice of a plan. */
export const deliverySettings = z.object({
	/** Off: content changes only with the card set. */
	used: z.boolean(),
	/** A folder of a web server, or one on a share or stick; "": not said yet. */
	from: lineText(300).regex(
		PLACE,
		'An address such as https://files.example/hatch, or a folder of a share or stick such as /srv/media/hatch; letters, digits, dots and hyphens.'
	),
	/** When it is looked for, besides two minutes after each start. */
	times: z.array(timeOfDay).max(24, 'At most 24.'),
	/** Only what is signed with the key that belongs to this one is taken; "": whatever lies there. */
	publicKey: z.string().regex(PUBLIC_KEY, 'A public key on the curve P-256, as the button makes it.'),
	/** Sets of a higher era come before all of a lower one, whatever their numbers: a way back from one packed under a wrong clock. */
	era: z.number().int().min(0).max(9999)
});
/** The delivery's slice of a plan. */
export type DeliverySettings = z.infer<typeof deliverySettings>;

/** What a new plan begins with. */
export const CALM_DELIVERY: DeliverySettings = { used: false, from: '', times: ['04:30'], publicKey: '', era: 0 };

/** It lies on a web server. */
export const isWeb = ({ from }: Pick<DeliverySettings, 'from'>): boolean => /^https?:/.test(from);
/** As `renew.sh` takes it, without a slash at the end. */
export const fetchedFrom = ({ from }: Pick<DeliverySettings, 'from'>): string => from.replace(/\/$/, '');
/** The key as openssl reads it: a line for each 64 characters. Source: RFC 7468, 2. */
export const keyLines = (publicKey: string): string[] => [
	'-----BEGIN PUBLIC KEY-----',
	...(publicKey.match(/.{1,64}/g) ?? []),
	'-----END PUBLIC KEY-----'
];
