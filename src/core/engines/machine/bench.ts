/**
 * The simulated surroundings of an endpoint: everything that its files do not say. Each link adds what it knows of them in its
 * own `bench.ts` (`declare module`), with the shape in which a file has it.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- joined from the owners' declarations
export interface Bench {}
