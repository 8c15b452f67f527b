import type { Figure } from '../link/figure';
import type { Finding, Level } from '../link/finding';
import type { Link } from '../link';
import type { Surroundings } from '../link/context';
import type { LinkId, Plan } from '../plan/plan';
import { derive, isUsed, sliceOf, type Derived } from './derive';

/** One link of a plan: what it worked out and what it has to say. */
export interface LinkState {
	readonly id: LinkId;
	readonly title: string;
	/** A link that the plan does without has neither figures nor findings. */
	readonly used: boolean;
	readonly figures: readonly Figure[];
	readonly findings: readonly Finding[];
	readonly telling: string;
	/** The worst level among its findings; null when all is well. */
	readonly worst: Level | null;
	/** What judges it is not loaded yet. */
	readonly pending: boolean;
}

/** A whole plan, judged. */
interface Assessment {
	readonly links: readonly LinkState[];
	/** All findings, stops first, each with its link. */
	readonly findings: readonly (Finding & { readonly link: LinkId })[];
	readonly worst: Level | null;
	/** Some of it is not judged yet. */
	readonly pending: boolean;
}

const ORDER: readonly Level[] = ['stop', 'caution', 'note'];
const worstOf = (findings: readonly Finding[]): Level | null =>
	ORDER.find((level) => findings.some((finding) => finding.level === level)) ?? null;

/** As the links give them within each level. */
const worstFirst = <F extends Finding>(findings: readonly F[]): F[] =>
	[...findings].sort((a, b) => ORDER.indexOf(a.level) - ORDER.indexOf(b.level));

const known = new WeakMap<Derived, Assessment>();

/** Walks the chain once: what follows from the plan, and what is wrong with it. The same plan is not judged twice. */
export function assess(chain: readonly Link[], plan: Plan, surroundings: Surroundings): Assessment {
	const derived = derive(chain, plan, surroundings);
	let assessment = known.get(derived);
	if (!assessment || assessment.pending) known.set(derived, (assessment = judge(chain, plan, derived)));
	return assessment;
}

function judge(chain: readonly Link[], plan: Plan, { context, claims }: Derived): Assessment {
	const links = chain.map((link): LinkState => {
		const used = isUsed(link, plan);
		const settings = sliceOf(plan, link);
		const figures = used ? (link.figures?.(settings, context, claims) ?? []) : [];
		const findings = worstFirst(used ? (link.assess?.(settings, context, claims) ?? []) : []);
		return {
			id: link.id as LinkId,
			title: link.title,
			used,
			figures,
			findings,
			telling: used ? (figures.find((figure) => figure.telling)?.text ?? '') : 'not used',
			worst: worstOf(findings),
			pending: used && !link.assess
		};
	});
	const findings = worstFirst(links.flatMap((link) => link.findings.map((finding) => ({ ...finding, link: link.id }))));
	return { links, findings, worst: worstOf(findings), pending: links.some(({ pending }) => pending) };
}
