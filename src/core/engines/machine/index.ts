/**
 * The simulated endpoint. A `Machine` holds a disk (what apply.sh put there), a `Bench` (the surroundings), a virtual clock,
 * a timeline and a track for each end of the chain; links attach their behaviour to it. Nothing here knows a plan or a link.
 */
export type { Bench } from './bench';
export { cardTree, Disk, NO_SPACE, type CardTree, type DiskFile } from './disk';
export { firstStart, type Installed } from './firstStart';
export { Machine, tellerFor, type Teller } from './machine';
export { applySeed, HOST_NAME_PATH, SEED_SSHD_PATH, timeZoneOf } from './programs/accounts';
export { ARCHIVE_FAULTS } from './programs/system';
export { toStream } from './programs/stream';
export { passwordHash, signatureBy, type WebAnswer } from './programs/web';
export { mayRun, spawn, type Process, type Program } from './processes';
export type { Offers, Signals } from './signals';
export type {
	EventKind,
	Fault,
	Mark,
	Said,
	Sentence,
	Span,
	TimelineEvent,
	Tone,
	Track,
	TrackKind,
	Verdict,
	Words
} from './timeline';
export { letsIn, rulesOf } from './firewall';
export { joinGaps } from './track';
export { OTHERS_READ } from './systemd';
export { verifyOn, type Verified } from './verify';
export { SYSTEM_WORDS } from './words';
