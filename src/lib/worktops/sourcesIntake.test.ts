import { expect, it, vi } from 'vitest';
import { readPlaylist } from '$core/formats/playlist';
import { emptyPlan, planSchema } from '$core/plan/plan';
import { addPlaylist } from './sourcesIntake';

vi.mock('$lib/store/storage', () => ({}));

const read = (text: string) => {
	const list = readPlaylist(new TextEncoder().encode(text));
	if (!list.ok) throw new Error(list.faults[0]!.message);
	return list.value;
};

it('puts a playlist behind what is there; the first also gives its title and head', () => {
	let next = 0;
	const id = (): string => String(next++);
	const first = addPlaylist(emptyPlan('a', 'a'), read('#EXTM3U x="1"\n#PLAYLIST:Nights\n#EXTINF:3,One\n1.wav\n'), id);
	expect(first.sources).toMatchObject({
		listTitle: 'Nights',
		header: ['#EXTM3U x="1"'],
		items: [{ id: '0', location: '1.wav', title: 'One', durationSec: 3 }]
	});
	const second = addPlaylist(first, read('#EXTM3U y="2"\n#PLAYLIST:Days\n2.wav\n'), id);
	expect(second.sources).toMatchObject({
		listTitle: 'Nights',
		header: ['#EXTM3U x="1"'],
		items: [{ location: '1.wav' }, { location: '2.wav', title: '' }]
	});
	expect(planSchema.safeParse(second).success).toBe(true);
});
