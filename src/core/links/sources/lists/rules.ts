import { z } from 'zod';
import type { Claim } from '../../../claims';
import { PLAYER_UNIT } from '../../../files/cardFile';
import type { Context } from '../../../link/context';
import type { Figure } from '../../../link/figure';
import type { Media } from '../../../parts/media';
import { idText, lineText, timeOfDay } from '../../../basics/text';
import { LIST_LIMITS } from '../../../formats/playlist/limits';
import { PLAYED } from './played';
import type { SourcesSettings } from '../settings';
import { isShare, storeOf } from '../stores/stores';

/** A folder on the endpoint: below where a share or stick is mounted, or on its own card. */
const folderText = lineText(500).regex(
	/^\/[^/].*[^/]$/,
	'A folder is written from the root, without a slash at its end, such as /srv/music/Evenings.'
);

/** A rule by which the endpoint chooses from folders, again and again. */
export const ruleSchema = z.object({
	id: idText,
	title: lineText(LIST_LIMITS.title),
	folders: z.array(folderText).min(1, 'Name at least one folder.').max(20),
	/** newest: what was changed last comes first. name: as they are called. any: shuffled anew each time. */
	order: z.enum(['newest', 'name', 'any']),
	/** So many of them; null: all. */
	most: z.number().int().min(1).max(LIST_LIMITS.entries).nullable(),
	/** None that is longer, minutes; null: however long. */
	longestMin: z.number().int().min(1).max(1440).nullable()
});
/** One rule. */
export type Rule = z.infer<typeof ruleSchema>;
/** When the endpoint chooses, besides at its start. */
export const chooseAtSchema = z.array(timeOfDay).max(6);

/** Where the lists lie that the endpoint makes. */
export const LISTS_DIR = '/var/lib/yphos-lists';
export const CHOOSE_UNIT = 'yphos-choose';
/** The list of a rule; an entry that leads there plays what it chooses. */
export const ruleList = ({ id }: Pick<Rule, 'id'>): string => `${LISTS_DIR}/${id}.m3u8`;
/** The rule whose list that is; undefined: none. */
export const ruleOf = (rules: readonly Rule[], location: string): Rule | undefined =>
	rules.find((rule) => ruleList(rule) === location);

/** Of the files that are known here, those that the rule would choose; by name, for nobody here knows when they were changed. */
export function chosenBy({ folders, most, longestMin }: Rule, { mediaBelow }: Pick<Context, 'mediaBelow'>): Media[] {
	const found = folders.flatMap((folder) =>
		mediaBelow(folder).filter(
			({ location, durationMs }) =>
				PLAYED.test(location) &&
				(longestMin === null || durationMs === null || durationMs < (longestMin + 1 / 60) * 60_000)
		)
	);
	return found.sort((a, b) => (a.location < b.location ? -1 : 1)).slice(0, most ?? undefined);
}

/** Folders that are known to hold something that plays, from these downward, with how many files lie in them and below; in order. */
export function knownFolders(
	roots: readonly string[],
	{ mediaBelow }: Pick<Context, 'mediaBelow'>
): { path: string; count: number }[] {
	const counts = new Map<string, number>();
	for (const root of roots)
		for (const { location } of mediaBelow(root)) {
			if (!PLAYED.test(location)) continue;
			for (let at = location.lastIndexOf('/'); at >= root.length; at = location.lastIndexOf('/', at - 1)) {
				const folder = location.slice(0, at);
				counts.set(folder, (counts.get(folder) ?? 0) + 1);
			}
		}
	return [...counts].sort(([a], [b]) => (a < b ? -1 : 1)).map(([path, count]) => ({ path, count }));
}

/** To see one file in a folder, and to look how long it is; on a server, or on a disk of its own. Typical of such boards. */
const MS_A_FILE = { server: { see: 4, look: 180 }, disk: { see: 0.3, look: 70 } } as const;

/** How long choosing takes from so many files, s. */
export const chooseSec = (files: number, where: keyof typeof MS_A_FILE, looks: boolean): number =>
	(files * (MS_A_FILE[where].see + (looks ? MS_A_FILE[where].look : 0))) / 1000;

/** The unit that chooses, its timer, and the program that says how long something is. */
export const ruleClaims = ({ rules, chooseAt, waitForNetwork }: SourcesSettings): Claim[] =>
	rules.length === 0
		? []
		: [
				{ on: 'unit', from: 'sources', what: 'rules', name: `${CHOOSE_UNIT}.service`, setting: 'sources.rules' },
				// Else it begins at once with what was chosen last, and takes what is new when it is there.
				...(waitForNetwork
					? [
							{
								on: 'start',
								of: PLAYER_UNIT,
								from: 'sources',
								what: 'rules',
								after: `${CHOOSE_UNIT}.service`,
								setting: 'sources.waitForNetwork'
							} as const
						]
					: []),
				...(chooseAt.length
					? [
							{
								on: 'unit',
								from: 'sources',
								what: 'rules',
								name: `${CHOOSE_UNIT}.timer`,
								setting: 'sources.chooseAt'
							} as const
						]
					: []),
				...(rules.some(({ longestMin }) => longestMin !== null)
					? [{ on: 'package', from: 'sources', what: 'rules', name: 'ffmpeg', setting: 'sources.rules' } as const]
					: []),
				...rules.map((rule, n): Claim => ({
					on: 'check',
					from: 'sources',
					what: rule.title || rule.id,
					label: `${rule.title || rule.id}: something is chosen`,
					command: `grep -q ^/ ${ruleList(rule)}`,
					setting: `sources.rules.${n}`
				}))
			];

/** How long choosing keeps the endpoint busy, from what is known here. */
export function ruleFigures({ rules, stores }: SourcesSettings, context: Context): Figure[] {
	if (rules.length === 0) return [];
	let files = 0;
	let sec = 0;
	for (const rule of rules)
		for (const folder of rule.folders) {
			const within = context.mediaBelow(folder).filter(({ location }) => PLAYED.test(location)).length;
			const store = storeOf(stores, `${folder}/`);
			files += within;
			sec += chooseSec(within, store && isShare(store) ? 'server' : 'disk', rule.longestMin !== null);
		}
	return [
		{
			id: 'choosing',
			setting: 'sources.rules',
			label: 'Choosing takes',
			text: files === 0 ? 'not known' : sec < 90 ? `${Math.ceil(sec)}\u2009s` : `${Math.ceil(sec / 60)}\u2009min`,
			value: files === 0 ? null : sec,
			sure: 'assumed',
			from:
				files === 0
					? 'No file in these folders is known here: add a listing of the share or stick.'
					: `${files} files known here, typical times of such a board.`
		}
	];
}
