import { isLinkId, type LinkId } from '$core/plan/plan';

/** Only names of links are worktops. */
export const match = (value: string): value is LinkId => isLinkId(value);
