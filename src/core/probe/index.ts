/** Probe reports: the read-only script for the board, and the reader of what it prints. Start at `readProbe`. */
export { readProbe, type ProbeReport } from './read';
export { noFacts, probeFactsSchema, type ProbeFacts, type SoundDevice } from '../parts/probeFacts';
