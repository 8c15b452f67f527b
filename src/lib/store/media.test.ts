import { beforeEach, expect, it, vi } from 'vitest';
import { disk, stubPage } from './fakeBrowser';
import { loadMedia, loadMediaBytes } from './media';
import { readMedia, readMediaNames, writeMedia } from './storage';

vi.mock('localforage', async () => ({ default: (await import('./fakeBrowser')).fakeForage }));

beforeEach(() => {
	disk.reset();
	stubPage();
});
const bytesOf = async (blob: Blob | null): Promise<number[]> => [...new Uint8Array(await blob!.arrayBuffer())];

it('keeps media as they are, and reads what an earlier Yphos kept as plain bytes', async () => {
	await writeMedia('new.wav', new Blob([Uint8Array.of(1, 2, 3)]));
	disk.set('old.wav', Uint8Array.of(4, 5), 'media');
	expect(await bytesOf(await readMedia('new.wav'))).toEqual([1, 2, 3]);
	expect(await bytesOf(await readMedia('old.wav'))).toEqual([4, 5]);
	expect(await readMedia('none.wav')).toBeNull();
	expect((await readMediaNames()).sort()).toEqual(['new.wav', 'old.wav']);
});

it('loads what is here, large or small, and passes over what is not', async () => {
	await writeMedia('own.wav', new Blob([Uint8Array.of(7)]));
	const wanted = ['own.wav', 'Night ferry.wav', 'Ferry times.png', 'nowhere.wav'];
	const lazy = await loadMedia(wanted);
	expect([...lazy.keys()]).toEqual(wanted.slice(0, 3));
	expect(lazy.get('own.wav')).toBeInstanceOf(Blob);
	const all = await loadMediaBytes(wanted);
	expect([...all.keys()]).toEqual(wanted.slice(0, 3));
	for (const bytes of all.values()) expect(bytes).toBeInstanceOf(Uint8Array);
	expect([...all.get('own.wav')!]).toEqual([7]);
});
