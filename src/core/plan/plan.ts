import { z } from 'zod';
import { chain } from '../chain';
import type { Named } from '../link/wish';

type Chain = (typeof chain)[number];
/** What the person decided about one endpoint, a part for each link of the chain, and nothing derived. */
export type Plan = { [L in Chain as L['id']]: z.infer<L['settings']> };
/** Ids of the links, from the chain. */
export type LinkId = Chain['id'];

const ofEach = (value: (link: Chain) => unknown): unknown =>
	Object.fromEntries(chain.map((link) => [link.id, value(link)]));

/** What a plan may hold: the schemas of all links. */
export const planSchema = z.object(
	ofEach((link) => link.settings) as { [L in Chain as L['id']]: z.ZodType<z.infer<L['settings']>> }
);

/** Whether a name is that of a link. */
export const isLinkId = (value: string): value is LinkId => value in planSchema.shape;

/** A plan to start from: nothing chosen, every default on the careful side, and the links that its kind needs. */
export const emptyPlan = (name: string, hostName: string, kind: Named['kind'] = 'music'): Plan =>
	ofEach((link) => link.empty({ name, hostName, kind })) as Plan;

/** Which shape each link's settings have today. */
export const sliceVersions = ofEach((link) => link.version) as Record<LinkId, number>;
