/**
 * The part of the shell's language that scripts on a card use, interpreted in virtual time: a script yields each program that it
 * runs, and the machine answers when it has ended. Start at `runScript`. What is not known here is said, never passed over.
 */
export { runScript, type ScriptRun } from './run';
export { NeverRests } from './state';
export { parseShell } from './parse';
export type { Ended, ShellHost, Spawn, Step } from './state';
