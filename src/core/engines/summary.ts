import type { Level } from '../link/finding';
import type { LinkId } from '../plan/plan';
import type { assess, LinkState } from './assess';

/** Of a judged plan what a shelf shows: small enough to be handed from a worker to the page. */
export interface Summary {
	readonly links: readonly Pick<LinkState, 'id' | 'title' | 'used' | 'telling' | 'worst' | 'pending'>[];
	readonly worst: Level | null;
	readonly pending: boolean;
	/** The first of its findings; null: none. */
	readonly first: { readonly title: string; readonly link: LinkId } | null;
	readonly findings: number;
}

/** What a shelf shows of it. */
export const summarise = ({ links, worst, pending, findings }: ReturnType<typeof assess>): Summary => ({
	links: links.map(({ id, title, used, telling, worst: of, pending: waits }) => ({
		id,
		title,
		used,
		telling,
		worst: of,
		pending: waits
	})),
	worst,
	pending,
	first: findings[0] ? { title: findings[0].title, link: findings[0].link } : null,
	findings: findings.length
});
