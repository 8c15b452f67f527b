import type { Claim } from '../../../claims';

/** Looks whether the page is alive. */
export const ALIVE_UNIT = 'yphos-page-alive';

/** Its timer begins with the board. */
export const aliveClaims = (): Claim[] => [
	{ from: 'notices', what: 'pages', setting: 'notices', on: 'unit', name: `${ALIVE_UNIT}.timer` }
];
