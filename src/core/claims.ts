import { groupBy } from './groupBy';
import type { SettingPath } from './link';
import type { Draw, HeaderUse } from './parts/schema';
import type { LinkId } from './plan/plan';

interface ClaimBase {
	readonly from: LinkId;
	/** Who asks, in words: "USB converter", "Harbour Radio". */
	readonly what: string;
}

/** How one source's samples are made. */
export interface SoundShape {
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	readonly codec: string;
	readonly lossless: boolean;
}

/** What one link needs of a resource that another owns. The owner adds up the claims on it and judges them. */
export type Claim = ClaimBase &
	/** Watts, and the way they come: the board itself, its own sockets, its header, or USB. `part` is the part's id. */
	(
		| ({ readonly on: 'power'; readonly part: string; readonly count: number } & Draw)
		/** Pins of the header; `makesSound`: its sound card is missing when it cannot have them. */
		| { readonly on: 'header'; readonly part: string; readonly use: HeaderUse; readonly makesSound: boolean }
		/** Parts to be had. */
		| { readonly on: 'shop'; readonly part: string; readonly count: number }
		| { readonly on: 'store'; readonly bytes: number }
		/** Written to the card again and again, in long pieces. */
		| { readonly on: 'wear'; readonly bytesPerDay: number }
		/** Bits a second over the network while it runs; `writes`: a recording that goes to a share; `hour`: in this one only. */
		| { readonly on: 'path'; readonly bitsPerSec: number; readonly writes?: true; readonly hour?: number }
		| { readonly on: 'sound'; readonly shape: SoundShape | null }
		/** An option for the player. */
		| { readonly on: 'player'; readonly option: string; readonly value: string; readonly setting: SettingPath }
		/** A condition for starting the player: units to wait for, or a command to run first. */
		| {
				readonly on: 'start';
				readonly setting: SettingPath;
				readonly after?: string;
				/** The unit is also asked for, so that it is really waited for. */
				readonly wants?: true;
				readonly before?: readonly string[];
				readonly group?: string;
				readonly device?: string;
		  }
		| { readonly on: 'package'; readonly name: string; readonly setting: SettingPath }
		| { readonly on: 'unit'; readonly name: string; readonly setting: SettingPath }
		/** A line of the settings sheet: what a person enters where an image has pages of its own, in the words of such pages. */
		| { readonly on: 'entry'; readonly label: string; readonly value: string; readonly setting: SettingPath }
		/** A read-only test of the finished endpoint: a shell command that succeeds when all is well; `whilePlaying`: only then. */
		| {
				readonly on: 'check';
				readonly label: string;
				readonly command: string;
				readonly whilePlaying?: true;
				readonly setting: SettingPath;
		  }
	);

/** Lines of the settings sheet: the setting, what such pages call it, and its value. */
export const entryClaims = (
	from: LinkId,
	what: string,
	entries: readonly (readonly [setting: SettingPath, label: string, value: string])[]
): Claim[] => entries.map(([setting, label, value]) => ({ on: 'entry', from, what, label, value, setting }));

type ClaimOn<R extends Claim['on']> = Extract<Claim, { on: R }>;
const sorted = new WeakMap<readonly Claim[], ReadonlyMap<Claim['on'], readonly Claim[]>>();

/** The claims on one resource. Owners ask again and again, so a list is sorted by resource once; it must not change afterwards. */
export function claimsOn<R extends Claim['on']>(claims: readonly Claim[], resource: R): readonly ClaimOn<R>[] {
	let by = sorted.get(claims);
	if (!by) sorted.set(claims, (by = groupBy(claims, ({ on }) => on)));
	return (by.get(resource) ?? []) as readonly ClaimOn<R>[];
}
