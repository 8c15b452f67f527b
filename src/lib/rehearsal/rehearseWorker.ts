import '$lib/plainZod';
import { expose } from 'comlink';
import { chain } from '$core/chain';
import { rehearse, type Rehearsal, type RehearseOptions } from '$core/engines/rehearse';

export type RehearsalRequest = Omit<RehearseOptions, 'links' | 'onProgress'>;

const worker = {
	run: (request: RehearsalRequest, onProgress: (part: number) => void): Rehearsal =>
		rehearse({ ...request, links: chain, onProgress })
};
export type RehearseWorker = typeof worker;
expose(worker);
