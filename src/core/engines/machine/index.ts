/**
 * The simulated endpoint. A `Machine` holds a disk (what apply.sh put there), a `Bench` (the surroundings), a virtual clock
 * and a timeline; links attach their behaviour to it. Nothing here knows a plan.
 */
export { benchSchema, type Bench, type BenchSoundCard } from './bench';
export { cardTree, Disk, type CardTree, type DiskFile } from './disk';
export { firstStart, type Installed } from './firstStart';
export { FAULTS, Machine, type FaultName, type PlayedMedia } from './machine';
export { mayRun, spawn, type Process } from './processes';
export type { Audible, Heard, Span, TimelineEvent } from './timeline';
