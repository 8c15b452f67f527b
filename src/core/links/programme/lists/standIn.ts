import type { Claim } from '../../../claims';
import type { Context } from '../../../link/context';
import type { ProgrammeSettings } from '../settings';

/** The script that knows what to do while a stream is gone. */
export const STAND_IN_PATH = '/opt/yphos/player/stand-in.lua';
/** A soft sign each ten seconds that nothing is broken but the stream. */
export const SIGN_PATH = '/opt/yphos/player/stream-gone.wav';

/** Something is to be done while a stream is gone, and there are streams. */
export const standsIn = ({ whenGone }: ProgrammeSettings, { facts }: Context): boolean =>
	whenGone !== 'list' && (facts.streams ?? 0) > 0;

/** What is opened in the place of a stream that is gone; "": nothing, the list goes on. */
const opens = ({ whenGone }: ProgrammeSettings, { facts }: Context): string =>
	whenGone === 'sign' ? SIGN_PATH : whenGone === 'file' ? (facts.firstFile ?? '') : '';

/** The script and its options. */
export function standInClaims(settings: ProgrammeSettings, context: Context): Claim[] {
	if (!standsIn(settings, context)) return [];
	const option = (name: string, value: string, setting: 'programme.whenGone' | 'programme.lookSec'): Claim => ({
		on: 'player',
		from: 'programme',
		what: 'streams that are gone',
		option: name,
		value,
		setting
	});
	const plays = opens(settings, context);
	return [
		option('script', STAND_IN_PATH, 'programme.whenGone'),
		...(plays ? [option('script-opts-append', `stand-in-plays=${plays}`, 'programme.whenGone')] : []),
		option('script-opts-append', `stand-in-look=${settings.lookSec}`, 'programme.lookSec')
	];
}
