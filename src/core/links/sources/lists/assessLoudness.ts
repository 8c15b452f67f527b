import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { changing } from '../../../changes';
import { withPart } from './parts';
import { MOST_QUIETER_DB, type SourcesSettings } from '../settings';

/** What people reach for the volume at. Typical; broadcasters keep to one. */
const UNEVEN_LU = 10;
const lufs = (value: number): string => `${value.toFixed(1).replace('-', '\u2212')}\u2009LUFS`;

/** Entries louder than that are made softer, in half decibels. */
const evened = (mostLufs: number, context: Context) =>
	changing<SourcesSettings>('sources')((settings) => ({
		...settings,
		items: settings.items.map((item) => {
			const level = context.media(item.location)?.details?.loudness?.integratedLufs ?? null;
			const quieterDb = Math.min(MOST_QUIETER_DB, Math.ceil(2 * ((level ?? mostLufs) - mostLufs)) / 2);
			return quieterDb <= (item.part?.quieterDb ?? 0) ? item : withPart(item, { quieterDb });
		})
	}));

/** Files of one list that are not equally loud, as far as they were measured. */
export function assessLoudness({ items }: SourcesSettings, context: Context): Finding[] {
	const measured = items.flatMap((item) => {
		const level = context.media(item.location)?.details?.loudness?.integratedLufs;
		return level === undefined || level === null
			? []
			: [{ name: item.title || item.location, level: level - (item.part?.quieterDb ?? 0) }];
	});
	const [first] = measured;
	if (!first) return [];
	const loudest = measured.reduce((a, b) => (b.level > a.level ? b : a), first);
	const softest = measured.reduce((a, b) => (b.level < a.level ? b : a), first);
	const apart = loudest.level - softest.level;
	if (apart <= UNEVEN_LU) return [];
	return [
		{
			id: 'sources.uneven',
			level: 'note',
			title: `Some files are ${apart.toFixed(0)}\u2009LU louder than others`,
			why: `"${loudest.name}" has ${lufs(loudest.level)}, "${softest.name}" ${lufs(softest.level)}; from ${UNEVEN_LU}\u2009LU on people reach for the volume. The player can make the louder ones softer; made anew with ffmpeg\u2019s filter loudnorm they keep to one level everywhere.`,
			setting: 'sources.items',
			fixes: [
				{
					label: `Make the louder ones softer, to ${lufs(softest.level + UNEVEN_LU / 2)}`,
					apply: evened(softest.level + UNEVEN_LU / 2, context)
				}
			]
		}
	];
}
