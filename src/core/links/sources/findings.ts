import type { Context, Finding } from '../../link';
import type { Plan } from '../../plan/plan';
import { placeKind } from '../../mediaPlace';

export function assessSources(plan: Plan, context: Context): Finding[] {
	const { items } = plan.sources;
	const findings: Finding[] = [];
	if (items.length === 0)
		findings.push({
			id: 'sources.empty',
			level: 'stop',
			title: 'There is nothing to play',
			why: 'Import a playlist, drop audio files, or type the address of a stream.',
			setting: 'sources.items',
			fixes: []
		});
	const doubles = items.filter((item, index) => items.findIndex((other) => other.location === item.location) < index);
	if (doubles.length)
		findings.push({
			id: 'sources.doubles',
			level: 'note',
			title: doubles.length === 1 ? 'One entry is there twice' : `${doubles.length} entries are there twice`,
			why: `${doubles
				.map((item) => item.title || item.location)
				.slice(0, 3)
				.join(', ')}. That is fine if you mean it.`,
			setting: 'sources.items',
			fixes: [
				{
					label: 'Keep each once',
					apply: (p) => ({
						...p,
						sources: {
							...p.sources,
							items: p.sources.items.filter(
								(item, index, all) => all.findIndex((other) => other.location === item.location) === index
							)
						}
					})
				}
			]
		});
	const unknown = items.filter((item) => !context.media(item.location));
	if (unknown.length)
		findings.push({
			id: 'sources.unknown',
			level: 'note',
			title: unknown.length === 1 ? 'One source is unknown' : `${unknown.length} sources are unknown`,
			why: `Nobody has said how ${unknown
				.map((item) => item.title || item.location)
				.slice(0, 3)
				.join(
					', '
				)} ${unknown.length === 1 ? 'is' : 'are'} made, so what happens to the sound is unknown. Drop the file, or type rate and width.`,
			setting: 'sources.items',
			fixes: []
		});
	const firstStream = items.findIndex((item) => placeKind(item.location) === 'stream');
	const hidden = firstStream < 0 ? 0 : items.length - 1 - firstStream;
	if (hidden > 0 && !plan.programme.shuffle)
		findings.push({
			id: 'sources.endless',
			level: 'caution',
			title: `${hidden} ${hidden === 1 ? 'entry is' : 'entries are'} never reached`,
			why: `"${items[firstStream]!.title || items[firstStream]!.location}" is a stream and has no end: what follows it plays only when it fails. Put files first, and streams behind them in the order in which they stand in for each other.`,
			setting: 'sources.items',
			fixes: items.slice(firstStream).some((item) => placeKind(item.location) !== 'stream')
				? [
						{
							label: 'Files first, then streams',
							apply: (p) => ({
								...p,
								sources: {
									...p.sources,
									items: [...p.sources.items].sort(
										(a, b) => Number(placeKind(a.location) === 'stream') - Number(placeKind(b.location) === 'stream')
									)
								}
							})
						}
					]
				: []
		});
	const disk = items.filter((item) => placeKind(item.location) === 'disk');
	if (disk.length)
		findings.push({
			id: 'sources.elsewhere',
			level: 'caution',
			title: `${disk.length === 1 ? 'One file is' : `${disk.length} files are`} expected on the endpoint`,
			why: `${disk[0]!.location} must already be there when it starts; this card set does not bring it. Type only its file name to take it along on the card.`,
			setting: 'sources.items',
			fixes: [
				{
					label: 'Take along on the card',
					apply: (p) => ({
						...p,
						sources: {
							...p.sources,
							items: p.sources.items.map((item) =>
								placeKind(item.location) === 'disk'
									? { ...item, location: item.location.split('/').at(-1) || item.location }
									: item
							)
						}
					})
				}
			]
		});
	const mixed =
		plan.sources.waitForNetwork &&
		items.some((item) => placeKind(item.location) === 'stream') &&
		items.some((item) => placeKind(item.location) !== 'stream');
	if (mixed)
		findings.push({
			id: 'sources.waits',
			level: 'note',
			title: 'Files wait for the network too',
			why: 'Some entries need no network, yet nothing plays before it is there. Beginning at once plays the files and passes over streams until then.',
			setting: 'sources.waitForNetwork',
			fixes: [{ label: 'Begin at once', apply: (p) => ({ ...p, sources: { ...p.sources, waitForNetwork: false } }) }]
		});
	return findings;
}
