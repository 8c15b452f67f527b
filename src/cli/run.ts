import { writers } from '$core/writers';
import { calc } from './commands/calc';
import { check } from './commands/check';
import { demo } from './commands/demo';
import { disks } from './commands/disks';
import { key } from './commands/key';
import { look } from './commands/look';
import { onAir } from './commands/onAir';
import { pack } from './commands/pack';
import { played } from './commands/played';
import { probe } from './commands/probe';
import { rehearseCommand } from './commands/rehearse';
import { schema } from './commands/schema';
import { send } from './commands/send';
import { shop } from './commands/shop';
import { writeCommand } from './commands/write';
import type { Flags } from './say';
import { complain, Refusal } from './files';

/** Options that name a file with a secret, as the links have them. */
const SECRETS = writers.flatMap(({ secrets }) => secrets?.options ?? []);

const HELP = `yphos: plan, prove and write playback endpoints

  yphos check PLAN [--endpoint ID]                     findings; exit 1 on a stop   [--media DIR]
  yphos check PLAN --endpoint ID --fix FINDING[:N] --out FILE   the workshop with that fix pressed
  yphos write PLAN [--endpoint ID] --out DIR           the card set   [--media DIR] ${SECRETS.map((option) => `[--${option} F]`).join(' ')} [--browser PROGRAM] [--even-so]
  yphos send PLAN --endpoint ID [--to USER@HOST] [--yes] over SSH to a running endpoint, after showing what changes   [what write takes] [--ssh PROGRAM]
  yphos pack PLAN [--endpoint ID] --out DIR [--sign-key FILE]   pages, lists and media as a set that the endpoint fetches   [--media DIR]
  yphos key FILE                                       makes a signing key for such sets, and says its public half
  yphos rehearse PLAN|DIR [--endpoint ID] [--bench F] [--at ISO] [--for 24h] [--fault NAME@TIME[+LENGTH]]… [--verify]   what verify.sh would say at its end
  yphos on-air PLAN [--endpoint ID] [--at ISO] [--for 7d]   what is on then, and which rule says so; --smil gives it to open players, --lists DIR as playlists with timers
  yphos played FILE [--each]                           what a page has shown, from its log, as CSV (- reads standard input)
  yphos probe FILE                                     what a probe report says (- reads standard input)
  yphos disks FILE [--card-gb N]                       which disk of your computer is the card (- reads standard input)
  yphos look FILE…                                     what sound and picture files say of themselves
  yphos shop PLAN [--endpoint ID]                      the shopping list as CSV, or with --json with kits and cost of use
  yphos schema [weather]                               the JSON Schema of a file of parts, or of a weather feed
  yphos calc NAME                                      JSON lines in, JSON lines out
  yphos demo DIR                                       the demo workshop as a file

PLAN is an exported workshop, with its media (.zip) or without, or the word demo. Media are looked for in --media DIR, too. --json gives every answer as JSON.
`;
const COMMANDS = {
	check,
	write: writeCommand,
	rehearse: rehearseCommand,
	'on-air': onAir,
	send,
	pack,
	key,
	played,
	probe,
	disks,
	look,
	shop,
	schema,
	calc,
	demo
};
const SWITCHES = ['verify', 'json', 'even-so', 'help', 'yes', 'smil'];
const VALUES = [
	'endpoint',
	'out',
	'media',
	...SECRETS,
	'bench',
	'at',
	'for',
	'fault',
	'card-gb',
	'sign-key',
	'browser',
	'lists',
	'to',
	'ssh',
	'fix'
];

function parse(argv: readonly string[]): { words: string[]; flags: Flags } {
	const words: string[] = [];
	const flags: Record<string, string | boolean | string[]> = { json: false };
	for (let i = 0; i < argv.length; i++) {
		const name = /^--(.+)$/.exec(argv[i]!)?.[1];
		if (name === undefined) words.push(argv[i]!);
		else if (SWITCHES.includes(name)) flags[name] = true;
		else if (VALUES.includes(name) && argv[i + 1] !== undefined) {
			const value = argv[++i]!;
			flags[name] = name === 'fault' ? [...((flags.fault as string[] | undefined) ?? []), value] : value;
		} else throw new Refusal(`${argv[i]} is not known, or its value is missing. See yphos --help.`);
	}
	return { words, flags: flags as Flags };
}

/** Runs one command, as somebody types it; gives what the process ends with. */
export async function run(argv: readonly string[]): Promise<number> {
	try {
		const { words, flags } = parse(argv);
		const [name, ...args] = words;
		if (flags.help || !name) process.stdout.write(HELP);
		else if (!Object.hasOwn(COMMANDS, name)) throw new Refusal(`${name} is not a command. See yphos --help.`);
		else return await COMMANDS[name as keyof typeof COMMANDS](args, flags);
		return 0;
	} catch (error) {
		// A file that is not there is the person's to mend; anything else is our bug and keeps its trace.
		const isTheirs =
			error instanceof Refusal || (error as NodeJS.ErrnoException).code !== undefined || error instanceof SyntaxError;
		complain(`${isTheirs ? (error as Error).message : (error as Error).stack}`);
		return 2;
	}
}
