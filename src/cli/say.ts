import { printable, Refusal } from './files';

/** Options of the command line, by name. */
export interface Flags {
	readonly json: boolean;
	readonly [name: string]: string | boolean | readonly string[] | undefined;
}

/** One command: gives what the process ends with. */
export type Command = (args: readonly string[], flags: Flags) => number | Promise<number>;

/** The value of an option; undefined: not given. */
export const text = (flags: Flags, name: string): string | undefined =>
	typeof flags[name] === 'string' ? flags[name] : undefined;

/** A line for a person. */
export const say = (line: string): void => void process.stdout.write(`${printable(line)}\n`);

/** The same for a program. */
export const sayJson = (value: unknown): void => say(JSON.stringify(value, null, '\t'));

/** The first word, which the command cannot do without. */
export const need = (args: readonly string[], what: string): string => {
	if (!args[0]) throw new Refusal(`${what} is missing. See yphos --help.`);
	return args[0];
};
