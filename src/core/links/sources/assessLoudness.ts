import type { Context, Finding } from '../../link';
import type { SourcesSettings } from './settings';

/** What people reach for the volume at. Typical; broadcasters keep to one. */
const UNEVEN_LU = 10;
const lufs = (value: number): string => `${value.toFixed(1).replace('-', '\u2212')}\u2009LUFS`;

/** Files of one list that are not equally loud, as far as they were measured. */
export function assessLoudness({ items }: SourcesSettings, context: Context): Finding[] {
	const measured = items.flatMap((item) => {
		const level = context.media(item.location)?.details?.loudness?.integratedLufs;
		return level === undefined || level === null ? [] : [{ name: item.title || item.location, level }];
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
			why: `"${loudest.name}" has ${lufs(loudest.level)}, "${softest.name}" ${lufs(softest.level)}; from ${UNEVEN_LU}\u2009LU on people reach for the volume. Make the louder ones anew with ffmpeg\u2019s filter loudnorm, or keep them in lists of their own.`,
			setting: 'sources.items',
			fixes: []
		}
	];
}
