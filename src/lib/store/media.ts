import type { Plan } from '$core/plan/plan';
import { demoMediaBytes } from '$demo/media';
import { readMediaBytes } from './storage';

/** Bytes of the media that go on the card, as far as this browser has them. */
export async function loadMediaBytes(plan: Plan): Promise<Map<string, Uint8Array>> {
	const found = new Map<string, Uint8Array>();
	for (const { location } of plan.sources.items) {
		const bytes = demoMediaBytes(location) ?? (await readMediaBytes(location));
		if (bytes) found.set(location, bytes);
	}
	return found;
}
