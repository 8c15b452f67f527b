import '$lib/plainZod';
import { expose } from 'comlink';
import { rehearsed } from '$core/rehearsals';
import { rehearse, type Rehearsal, type RehearseOptions } from '$core/engines/rehearse';

export type RehearsalRequest = Omit<RehearseOptions, 'links' | 'onProgress'>;

const worker = {
	run: (request: RehearsalRequest, onProgress: (part: number) => void): Rehearsal =>
		rehearse({ ...request, links: rehearsed, verifies: true, onProgress })
};
export type RehearseWorker = typeof worker;
expose(worker);
