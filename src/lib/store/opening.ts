import { historySchema, NO_HISTORY, type History } from '$core/plan/history';
import type { Damaged, Opened } from '$core/plan/open';
import { alike } from '$core/basics/alike';
import { emptyWorkshop, WORKSHOP_VERSION, type Endpoint, type Workshop } from '$core/plan/workshop';
import { sentence } from '$core/basics/result';
import { demoWorkshop } from '$demo/workshop';
import { keepCopy, readEnvelope, versionIn, type ReadEnvelope } from './storage';
import { safely } from '$core/basics/safely';

/** Why what is stored was not simply opened: nothing is shown and nothing is written until the person has decided. */
export type Lock =
	/** A newer Yphos wrote it. */
	| { readonly reason: 'newer'; readonly raw: unknown }
	/** The browser does not give it out. */
	| { readonly reason: 'unreachable'; readonly why: string }
	/** No copy of it could be kept before bringing it to this version. */
	| { readonly reason: 'no-copy'; readonly why: string; readonly raw: unknown; readonly opened: Opened }
	/** Parts of it are not understood. */
	| { readonly reason: 'damaged'; readonly raw: unknown; readonly opened: Opened }
	/** It is no workshop at all. */
	| { readonly reason: 'unreadable'; readonly why: string; readonly raw: unknown };

export interface Opening {
	readonly lock: Lock | null;
	readonly workshop: Workshop | null;
	readonly history: History;
	/** Steps back that could not be read: to be kept aside. */
	readonly strangeHistory: unknown;
	readonly remarks: readonly string[];
	/** Null: there is no record that this tab could go on from. */
	readonly revision: number | null;
	readonly tab: string;
	/** By tab: so many of the steps that it noted are in the record. */
	readonly noted: Readonly<Record<string, number>>;
	readonly savedUtc: string | null;
}

const NOTHING: Opening = {
	lock: null,
	workshop: null,
	history: NO_HISTORY,
	strangeHistory: undefined,
	remarks: [],
	revision: null,
	tab: '',
	noted: {},
	savedUtc: null
};

/** Looks at what this browser holds; what reads a saved workshop is loaded where there is one. Writes nothing but the copy of an older version's record. */
export async function openStored(zone: string): Promise<Opening> {
	let there: ReadEnvelope;
	try {
		there = await readEnvelope();
	} catch (error) {
		return { ...NOTHING, lock: { reason: 'unreachable', why: (error as Error).message } };
	}
	if (there.state === 'none') return { ...NOTHING, workshop: demoWorkshop };
	const raw = there.state === 'sound' ? there.envelope : there.raw;
	const version = versionIn(there);
	if (version > WORKSHOP_VERSION) return { ...NOTHING, lock: { reason: 'newer', raw } };
	if (there.state === 'torn')
		return { ...NOTHING, lock: { reason: 'unreadable', why: 'What is stored has lost its frame.', raw } };
	const { revision, tab, savedUtc, noted = {} } = there.envelope;
	const known = { ...NOTHING, revision, tab, savedUtc, noted };
	const { openSaved } = await import('$core/plan/open');
	const opened = openSaved(there.envelope.workshop, zone);
	if (!opened.ok) return { ...known, lock: { reason: 'unreadable', why: sentence(opened.faults), raw } };
	if (version < WORKSHOP_VERSION)
		try {
			await keepCopy(WORKSHOP_VERSION, raw);
		} catch (error) {
			return { ...known, lock: { reason: 'no-copy', why: (error as Error).message, raw, opened: opened.value } };
		}
	if (opened.value.damaged.length) return { ...known, lock: { reason: 'damaged', raw, opened: opened.value } };
	return {
		...known,
		workshop: asStored(opened.value.workshop, there.envelope.workshop),
		remarks: opened.value.remarks,
		...historyOf(there.envelope.history, version)
	};
}

/** Endpoints that were opened as they stood are the stored objects themselves: held once, and not written again. */
function asStored(workshop: Workshop, raw: unknown): Workshop {
	const { endpoints } = raw as { endpoints?: unknown };
	if (!Array.isArray(endpoints)) return workshop;
	return {
		...workshop,
		endpoints: workshop.endpoints.map((endpoint, n) =>
			alike(endpoint, endpoints[n]) ? (endpoints[n] as Endpoint) : endpoint
		)
	};
}

/** Steps back are differences between workshops of one version; an older one's fit no longer. */
function historyOf(raw: unknown, version: number): Pick<Opening, 'history' | 'strangeHistory'> {
	if (version !== WORKSHOP_VERSION || raw === undefined) return { history: NO_HISTORY, strangeHistory: undefined };
	const parsed = safely(historySchema, raw);
	return parsed.success
		? { history: parsed.data as History, strangeHistory: undefined }
		: { history: NO_HISTORY, strangeHistory: raw };
}

export type Decision = 'mend' | 'sound-only' | 'demo' | 'empty';

/** What the person decided to go on with, and what is kept aside for it. */
export async function decide(
	lock: Exclude<Lock, { reason: 'newer' }>,
	decision: Decision,
	zone: string
): Promise<{ workshop: Workshop; aside: readonly Damaged[]; remarks: readonly string[] }> {
	const opened = lock.reason === 'damaged' || lock.reason === 'no-copy' ? lock.opened : null;
	if (opened && decision === 'sound-only')
		return { workshop: opened.workshop, aside: opened.damaged, remarks: opened.remarks };
	if (opened && decision === 'mend') {
		const { nameOf, reopen } = await import('$core/plan/open');
		let workshop = opened.workshop;
		const remarks = [...opened.remarks];
		for (const damaged of opened.damaged) {
			const mended = reopen(workshop, damaged);
			if (mended.ok) workshop = mended.value.workshop;
			remarks.push(
				...(mended.ok
					? mended.value.changed.map((words) => `${nameOf(damaged) || damaged.where}: ${words}.`)
					: [sentence(mended.faults)])
			);
		}
		return { workshop, aside: opened.damaged, remarks };
	}
	const whole =
		'raw' in lock ? [{ where: 'workshop', why: 'It was set aside for another.', raw: insideOf(lock.raw) }] : [];
	return { workshop: decision === 'demo' ? demoWorkshop : emptyWorkshop(zone), aside: whole, remarks: [] };
}

const insideOf = (raw: unknown): unknown => (raw as { workshop?: unknown } | null)?.workshop ?? raw;
