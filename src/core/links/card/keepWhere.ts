import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import { chosenParts } from '../../parts/chosen';
import type { CardSettings } from './settings';

/** Where a kind of thing is best kept, and why. */
interface Keeping {
	readonly what: string;
	readonly where: string;
	readonly why: string;
}

/** Card, stick or share: by how often each thing is written, how large it is, and what is at hand. */
export function keepWhere(settings: CardSettings, context: Context, claims: readonly Claim[]): Keeping[] {
	const parts = chosenParts(context).map(({ part }) => part);
	const drive = parts.find(({ kind }) => kind === 'drive');
	const server = parts.find(({ kind }) => kind === 'file-server');
	const records = claimsOn(claims, 'wear').length > 0;
	const large = claimsOn(claims, 'store').reduce((sum, { bytes }) => sum + bytes, 0) > 8e9;
	return [
		{ what: 'System', where: 'card', why: 'It starts from there; written seldom.' },
		{
			what: 'Media',
			where: large && (drive || server) ? (drive ?? server)!.name : 'card',
			why: large
				? 'More than some gigabytes fill a card and slow its copying.'
				: 'Small, and read only: the card does not wear by it.'
		},
		{
			what: 'Recordings',
			where: drive ? drive.name : server && context.facts.way === 'wired' ? server.name : 'a stick or a share by cable',
			why: records
				? 'They are written all day, and wear a card out.'
				: 'None are planned. When there are: never on the card.'
		},
		{
			what: 'Log',
			where: settings.logsInMemory ? 'memory' : 'card',
			why: settings.logsInMemory
				? 'Gone at each restart, and nothing torn by a cut.'
				: 'There after a restart, and written all the time.'
		}
	];
}
