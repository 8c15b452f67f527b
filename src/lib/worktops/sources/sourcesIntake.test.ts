import { expect, it, vi } from 'vitest';
import { readPlaylist } from '$core/formats/playlist';
import { emptyPlan, planSchema } from '$core/plan/plan';
import { writeTone } from '$core/formats/wav/wav';
import { LIST_LIMITS } from '$core/formats/playlist/limits';
import { store } from '$lib/store/workshop.svelte';
import { demoWorkshop } from '../../../../demo/workshop';
import { addPlaylist, mediaIn, takeListing, takeMediaFiles } from './sourcesIntake';

const room = vi.hoisted(() => ({ full: '', kept: [] as string[] }));
vi.mock('$lib/store/storage', () => ({
	writeMedia: async (location: string) => {
		if (location === room.full) throw new Error('no room');
		room.kept.push(location);
	},
	readMediaNames: async () => room.kept
}));

// Workers are the browser's; what they find out of a file's own head is the same.
vi.mock('$lib/media/lookThrough', async () => {
	const { createHash } = await import('node:crypto');
	const { lookAt } = await import('$lib/media/look');
	return {
		lookThrough: async (
			files: readonly File[],
			_: unknown,
			onFound: (file: File, found: unknown) => Promise<void>,
			signal?: AbortSignal
		) => {
			for (const file of files) {
				if (signal?.aborted) return;
				const sha256 = createHash('sha256')
					.update(Buffer.from(await file.arrayBuffer()))
					.digest('hex');
				await onFound(file, { sha256, facts: (await lookAt(file))?.facts ?? null, strip: null });
			}
		}
	};
});

const read = (text: string) => {
	const list = readPlaylist(new TextEncoder().encode(text));
	if (!list.ok) throw new Error(list.faults[0]!.message);
	return list.value;
};

it('leaves an odd entry out by its name, and takes all the others', () => {
	let next = 0;
	const text = [
		'#EXTM3U',
		'good.wav',
		'late.wav#t=99999999',
		'#EXTINF:1e308,Endless',
		'long.wav',
		'loud.wav#t=1&gain=-41',
		'end.wav',
		''
	].join('\n');
	const { plan, refused } = addPlaylist(emptyPlan('a', 'a'), read(text), () => String(next++));
	expect(plan.sources.items.map(({ location }) => location)).toEqual(['good.wav', 'long.wav', 'end.wav']);
	expect(plan.sources.items[1]!.durationSec).toBeNull();
	expect(refused).toEqual([expect.stringMatching(/^late\.wav/), expect.stringMatching(/^loud\.wav/)]);
});

it('puts a playlist behind what is there; the first also gives its title and head', () => {
	let next = 0;
	const id = (): string => String(next++);
	const first = addPlaylist(
		emptyPlan('a', 'a'),
		read('#EXTM3U x="1"\n#PLAYLIST:Nights\n#EXTINF:3,One\n1.wav\n'),
		id
	).plan;
	expect(first.sources).toMatchObject({
		listTitle: 'Nights',
		header: ['#EXTM3U x="1"'],
		items: [{ id: '0', location: '1.wav', title: 'One', durationSec: 3 }]
	});
	const second = addPlaylist(first, read('#EXTM3U y="2"\n#PLAYLIST:Days\n2.wav\n'), id).plan;
	expect(second.sources).toMatchObject({
		listTitle: 'Nights',
		header: ['#EXTM3U x="1"'],
		items: [{ location: '1.wav' }, { location: '2.wav', title: '' }]
	});
	expect(planSchema.safeParse(second).success).toBe(true);
});

it('takes each dropped file alone: one that cannot be kept, read or named keeps none of the others out', async () => {
	store.workshop = demoWorkshop;
	const tone = (sampleRateHz: number): Uint8Array<ArrayBuffer> =>
		writeTone({ pitchHz: 440, peakDbfs: -20, sampleRateHz, bitDepth: 16, channels: 1, durationMs: 50 }) as never;
	room.full = 'full.wav';
	const said = await takeMediaFiles('test-bench', [
		new File([tone(3000)], 'slow.wav'),
		new File([tone(48_000)], 'full.wav'),
		new File([tone(48_000)], 'good.wav'),
		new File(['x'], '\u0007\u0001'),
		new File(['no sound at all'], 'notes\u0000.txt')
	]);
	const bench = store.workshop!.endpoints.find(({ id }) => id === 'test-bench')!;
	expect(bench.plan.sources.items.slice(-3).map(({ location }) => location)).toEqual([
		'slow.wav',
		'good.wav',
		'notes .txt'
	]);
	expect(store.workshop!.media.find(({ location }) => location === 'good.wav')).toMatchObject({ sampleRateHz: 48_000 });
	expect(store.workshop!.media.some(({ location }) => location === 'slow.wav')).toBe(false);
	expect(said[0]).toBe('3 files added.');
	expect(said.join()).toContain('full.wav: not added. This browser has no room to keep it');
	expect(said.join()).toContain('slow.wav: sampleRateHz');
	store.undo();
	expect(store.workshop).toEqual(demoWorkshop);
	store.unsaved = true;
});

it('knows a file again that is missed here, whatever it is called now, and stops when it is told to', async () => {
	store.unsaved = true;
	const bytes = writeTone({
		pitchHz: 440,
		peakDbfs: -20,
		sampleRateHz: 48_000,
		bitDepth: 16,
		channels: 1,
		durationMs: 60
	});
	const file = (name: string): File => new File([bytes as Uint8Array<ArrayBuffer>], name);
	store.workshop = demoWorkshop;
	await takeMediaFiles('test-bench', [file('first.wav')]);
	room.kept = [];
	await store.lookForMedia();
	expect([...store.absent]).toEqual(['first.wav']);
	await takeMediaFiles('test-bench', [file('renamed since.wav')]);
	expect([...store.absent]).toEqual([]);
	const listed = store.workshop!.endpoints.find(({ id }) => id === 'test-bench')!.plan.sources.items;
	expect(listed.filter(({ location }) => /first|renamed/.test(location)).map(({ location }) => location)).toEqual([
		'first.wav'
	]);
	const giveUp = new AbortController();
	const seen: number[] = [];
	const said = await takeMediaFiles('test-bench', [file('a.wav'), file('b.wav'), file('c.wav')], {
		onFile: (done) => {
			seen.push(done);
			if (done === 2) giveUp.abort();
		},
		signal: giveUp.signal
	});
	expect(seen).toEqual([1, 2]);
	expect(said.join()).toContain('2 files added');
	expect(said.join()).toContain('Given up after 2 of 3 files');
	expect(mediaIn([file('b.flac'), new File([''], 'notes.txt'), file('a.MP3')]).map(({ name }) => name)).toEqual([
		'a.MP3',
		'b.flac'
	]);
});

it('tells two files of one name apart by their folders, and calls them as their tags do', async () => {
	store.unsaved = true;
	store.workshop = demoWorkshop;
	const below = (path: string, pitchHz: number): File => {
		const bytes = writeTone({
			pitchHz,
			peakDbfs: -20,
			sampleRateHz: 48_000,
			bitDepth: 16,
			channels: 1,
			durationMs: 60
		});
		const file = new File([bytes as Uint8Array<ArrayBuffer>], path.slice(path.lastIndexOf('/') + 1));
		Object.defineProperty(file, 'webkitRelativePath', { value: path });
		return file;
	};
	await takeMediaFiles('test-bench', [
		below('Music/A/01.wav', 440),
		below('Music/B/01.wav', 880),
		below('Music/x.wav', 220)
	]);
	const bench = store.workshop!.endpoints.find(({ id }) => id === 'test-bench')!;
	expect(bench.plan.sources.items.slice(-3)).toMatchObject([
		{ location: 'A/01.wav', title: '01', durationSec: 1 },
		{ location: 'B/01.wav', title: '01' },
		{ location: 'x.wav', title: 'x' }
	]);
	store.change('copy them instead', (workshop) => ({
		...workshop,
		endpoints: workshop.endpoints.map((one) =>
			one.id === 'test-bench' ? { ...one, plan: { ...one.plan, sources: { ...one.plan.sources, carry: 'self' } } } : one
		)
	}));
	room.kept = [];
	await takeMediaFiles('test-bench', [below('Music/C/01.wav', 330)]);
	expect(room.kept).toEqual([]);
	expect(store.workshop!.media.find(({ location }) => location === 'C/01.wav')?.kept).toBe('person');
});

it('takes no more entries than a list holds', () => {
	const many = Array.from({ length: LIST_LIMITS.entries + 5 }, (_, n) => `${n}.wav`).join('\n');
	let next = 0;
	const list = read(many);
	expect(list.entries).toHaveLength(LIST_LIMITS.entries);
	expect(list.remarks.join()).toContain('10005 entries; the first 10000 were taken');
	const full = addPlaylist(emptyPlan('a', 'a'), list, () => `i${next++}`).plan;
	const still = addPlaylist(full, read('more.wav'), () => `i${next++}`).plan;
	expect(still.sources.items).toHaveLength(LIST_LIMITS.entries);
	expect(planSchema.safeParse(still).success).toBe(true);
});

it('takes in what a listing brought: what is new, as far as there is room, with its facts', () => {
	store.workshop = demoWorkshop;
	const id = 'bunkhouse-lounge';
	const location = '/srv/music/New.flac';
	const facts = { ...demoWorkshop.media[0]!, location, kept: 'person' as const };
	const [known] = demoWorkshop.endpoints.find((one) => one.id === id)!.plan.sources.items;
	const entries = [location, known!.location].map((at) => ({ location: at, title: 'New', durationSec: 3 }));
	expect(takeListing(id, { entries, media: [facts], leftOut: 2 })).toEqual([
		'1 file added.',
		'1 file in the list already.',
		'2 files left out: nothing plays them.'
	]);
	const { endpoints, media } = store.workshop!;
	expect(endpoints.find((one) => one.id === id)!.plan.sources.items.at(-1)).toMatchObject({ location, title: 'New' });
	expect(media.find((one) => one.location === location)).toEqual(facts);
	expect(takeListing(id, { entries, media: [], leftOut: 0 })[0]).toContain('Nothing new');
	const many = Array.from({ length: LIST_LIMITS.entries }, (_, n) => ({
		location: `/srv/music/${n}.mp3`,
		title: '',
		durationSec: null
	}));
	expect(takeListing(id, { entries: many, media: [], leftOut: 0 }).join()).toContain('the list is full');
});

it('puts a film that was made anew in the place of the one that it was made from, where that is one', async () => {
	const entry = (id: string, location: string) => ({
		...demoWorkshop.endpoints[0]!.plan.sources.items[0]!,
		id,
		location
	});
	const items = ['film.mkv', 'film.avi', '/srv/a/other.mkv', '/srv/b/other.mkv'].map((at, n) => entry(`i${n}`, at));
	store.workshop = {
		...demoWorkshop,
		endpoints: demoWorkshop.endpoints.map((endpoint) =>
			endpoint.id === 'test-bench'
				? { ...endpoint, plan: { ...endpoint.plan, sources: { ...endpoint.plan.sources, items } } }
				: endpoint
		)
	};
	store.unsaved = true;
	await takeMediaFiles('test-bench', [new File(['x'], 'film.mkv.plays.mp4'), new File(['y'], 'other.mkv.plays.mp4')]);
	const { sources } = store.workshop.endpoints.find(({ id }) => id === 'test-bench')!.plan;
	expect(sources.items.map(({ location }) => location)).toEqual([
		'film.mkv.plays.mp4',
		'film.avi',
		'/srv/a/other.mkv',
		'/srv/b/other.mkv',
		'other.mkv.plays.mp4'
	]);
});
