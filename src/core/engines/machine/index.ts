/**
 * The simulated endpoint. A `Machine` holds a disk (what apply.sh put there), a `Bench` (the surroundings), a virtual clock
 * and a timeline; links attach their behaviour to it. Nothing here knows a plan.
 */
export { benchSchema, type Bench, type BenchSoundCard } from './bench';
export { applyCard, cardTree, type CardTree, type Disk } from './disk';
export { FAULTS, Machine, type FaultName, type PlayedMedia, type Process } from './machine';
export type { Audible, Heard, Span, TimelineEvent } from './timeline';
