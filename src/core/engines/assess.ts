import type { Claim } from '../claims';
import type { Context, Figure, Finding, Level, Link } from '../link';
import type { LinkId, Plan } from '../plan/plan';

export interface LinkState {
	readonly id: LinkId;
	readonly title: string;
	readonly figures: readonly Figure[];
	readonly findings: readonly Finding[];
	readonly telling: string;
	/** The worst level among its findings; null when all is well. */
	readonly worst: Level | null;
}

export interface Assessment {
	readonly links: readonly LinkState[];
	/** All findings, stops first, each with its link. */
	readonly findings: readonly (Finding & { readonly link: LinkId })[];
	readonly worst: Level | null;
}

const ORDER: readonly Level[] = ['stop', 'caution', 'note'];
const worstOf = (findings: readonly Finding[]): Level | null =>
	ORDER.find((level) => findings.some((finding) => finding.level === level)) ?? null;

export const collectClaims = (chain: readonly Link[], plan: Plan, context: Context): Claim[] =>
	chain.flatMap((link) => link.claims(plan, context));

/** Walks the chain once: what follows from the plan, and what is wrong with it. */
export function assess(chain: readonly Link[], plan: Plan, context: Context): Assessment {
	const claims = collectClaims(chain, plan, context);
	const links = chain.map((link): LinkState => {
		const figures = link.figures(plan, context, claims);
		const findings = link.assess(plan, context, claims);
		return {
			id: link.id,
			title: link.title,
			figures,
			findings,
			telling: figures.find((figure) => figure.telling)?.text ?? '',
			worst: worstOf(findings)
		};
	});
	const findings = links
		.flatMap((link) => link.findings.map((finding) => ({ ...finding, link: link.id })))
		.sort((a, b) => ORDER.indexOf(a.level) - ORDER.indexOf(b.level));
	return { links, findings, worst: worstOf(findings) };
}
