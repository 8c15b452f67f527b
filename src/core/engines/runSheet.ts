import { PHASES, type Phase, type Step } from '../link/step';
import type { Link } from '../link';
import type { Surroundings } from '../link/context';
import type { LinkId, Plan } from '../plan/plan';
import { derive, sliceOf } from './derive';

/** A step in its place on the sheet. */
export interface SheetStep extends Step {
	/** Unique within the endpoint: link and step. */
	readonly key: string;
	readonly link: LinkId | 'chain';
}
/** The steps of one phase, in order. */
export interface SheetPhase {
	readonly phase: Phase;
	readonly steps: readonly SheetStep[];
}

/** All steps in the order in which a person does them; what needs a restart shares one, at the end of its phase. */
export function runSheet(chain: readonly Link[], plan: Plan, surroundings: Surroundings): SheetPhase[] {
	const { links, context, claims } = derive(chain, plan, surroundings);
	const all = links.flatMap((link) =>
		(link.steps?.(sliceOf(plan, link), context, claims) ?? []).map((step): SheetStep => ({
			...step,
			key: `${link.id}.${step.id}`,
			link: link.id as LinkId
		}))
	);
	return PHASES.map((phase) => {
		const steps = inOrder(all.filter((step) => step.phase === phase));
		return { phase, steps: [...steps, ...restartAfter(phase, steps)] };
	}).filter(({ steps }) => steps.length > 0);
}

/** As the links give them, but each step after those that make what it needs. */
function inOrder(steps: readonly SheetStep[]): SheetStep[] {
	const left = [...steps];
	const out: SheetStep[] = [];
	while (left.length > 0) {
		const isReady = (step: SheetStep): boolean =>
			!step.needs?.some((need) => left.some((other) => other !== step && other.makes?.includes(need)));
		// A circle of needs cannot be done in any order; a test sees that there is none.
		const next = Math.max(0, left.findIndex(isReady));
		out.push(...left.splice(next, 1));
	}
	return out;
}

/** One restart for all that need it. By command where others are typed; an image with pages of its own has a button for it. */
function restartAfter(phase: Phase, steps: readonly SheetStep[]): SheetStep[] {
	if (!steps.some((step) => step.needsRestart)) return [];
	const byCommand = steps.some(({ command }) => command !== undefined);
	return [
		{
			key: `chain.restart-${phase}`,
			id: `restart-${phase}`,
			link: 'chain',
			phase,
			do: `Restart once${byCommand ? '' : ', from its own page or menu'}, unless it has just restarted by itself.`,
			...(byCommand ? { command: 'sudo systemctl reboot' } : {}),
			expect: 'It comes back as the rehearsal showed.'
		}
	];
}
