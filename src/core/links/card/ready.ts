import { withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { RELEASE } from './release';
import type { CardSettings } from './settings';

/** Something to be fetched before anything else, and where it goes. */
interface FileToFetch {
	readonly id: string;
	readonly what: string;
	readonly goes: string;
	readonly expect: string;
}

/** What a ready-made image or platform needs from its maker, and where each goes. */
export function filesToFetch(card: CardSettings, context: Context): FileToFetch[] {
	const memoryMb = context.part('board', context.facts.parts.board)?.memoryMb;
	const memory = memoryMb ? `${withUnit(memoryMb / 1024, memoryMb < 1024 ? 1 : 0, 'GB')} of memory` : 'its memory';
	const chosen = card.image ? ` (you chose ${card.image.name})` : '';
	const image = (what: string): FileToFetch => ({
		id: 'image',
		what: `${what}${chosen}`,
		goes: 'onto the card, as a whole disk',
		expect: 'One large file, and a line of letters and digits.'
	});
	switch (card.system) {
		case 'plain':
			return [image(`a plain system image of ${RELEASE.words} for your board, the kind without a desktop`)];
		case 'player':
			return [image('the player image for your board')];
		case 'platform':
			return [
				image(
					`the platform image for your board; where there are several by memory, the one for ${memory}, or the next smaller: a larger one does not start`
				),
				{
					id: 'archive',
					what: 'the second archive that the platform wants, for the same version and the same kind of processor',
					goes: 'onto a memory stick formatted as FAT32, unopened, at its top; never onto the card',
					expect:
						'The stick holds that one archive. Its name tells version and processor: both as in the image\u2019s name.'
				}
			];
	}
}

/** A keyboard in place of a remote. What an image makes of its function keys is its own affair. */
export const KEYS: readonly (readonly [key: string, does: string])[] = [
	['arrows', 'move'],
	['Enter', 'choose'],
	['Escape', 'back'],
	['key with a logo, or Home; on some images F1', 'the first screen'],
	['Menu; on some images F2 or F4', 'more about what is chosen'],
	['power key; on some images F5 or F12 held', 'switch off, restart']
];

const keysInWords = KEYS.map(([key, does]) => `${key}: ${does}`).join('. ');

const platformSteps: readonly Step[] = [
	{
		id: 'first-picture',
		phase: 'set up',
		do: `Join a keyboard, and let the first start end. ${keysInWords}.`,
		expect:
			'A moving picture for two to ten minutes, one restart by itself, then a question for the language. Skip accounts for now.'
	},
	{
		id: 'hidden-settings',
		phase: 'set up',
		do: 'Unlock the hidden settings: in Settings, About, choose the build number seven times. Among what appears, allow restarting into recovery.',
		expect: 'A line counts down and says that they are open. A new entry stands in Settings.'
	},
	{
		id: 'recovery',
		phase: 'set up',
		do: 'Put the stick in. Restart, and choose recovery; an image without that choice has a key to be held while power comes.',
		expect:
			'A plain menu in place of the usual screen. When the usual screen comes, it was an ordinary restart: once more.'
	},
	{
		id: 'second-archive',
		phase: 'set up',
		do: 'Choose Install, the stick, the archive, and confirm.',
		expect:
			'Lines of text, the last of which says that it was done. An error about version or processor: it is the wrong archive, and nothing was changed.'
	},
	{
		id: 'wipe-cache',
		phase: 'set up',
		do: 'Still there, wipe the cache and, where it is offered, the cache of programs. Then restart the system, and take the stick out.',
		expect:
			'This restart takes longer than any later one: up to ten minutes with a moving picture. Then the usual screen, with what the archive brought.',
		caution: 'Wipe the cache, not the data: wiping data, or a factory reset, begins everything anew.'
	},
	{
		id: 'platform-output',
		phase: 'set up',
		do: 'In Settings, choose the sound output and the screen\u2019s size, and enter what docs/settings-sheet.html of the card set says.',
		expect: 'They are kept over one more restart, which takes less than two minutes.',
		needsRestart: true
	}
];

const playerSteps = ({ facts }: Context): readonly Step[] => [
	{
		id: 'own-page',
		phase: 'set up',
		do: `Open the player\u2019s own page in a browser: http://${facts.hostName}.local or its number, with http and not https. Enter what docs/settings-sheet.html of the card set says, from top to bottom, and save each page.`,
		expect: 'Each page says that it has saved.',
		needsRestart: true
	},
	{
		id: 'page-again',
		phase: 'check',
		do: 'Open the same page again.',
		expect:
			'It answers within two minutes of the restart, under its new name, with what was entered. What is missing was not saved.'
	}
];

const rightOutput = ({ facts }: Context): Step => ({
	id: 'right-output',
	phase: 'check',
	needs: ['amplifier on', 'heard'],
	do: `Play something and see that it comes out of ${facts.cardId ? `the output named ${facts.cardId}` : 'the output that the plan names'}, not out of the screen or the jack.`,
	expect:
		'Sound from the right place, and none from the wrong one. This is what goes wrong most often with ready-made images: their lists hold a dozen outputs with look-alike names.'
});

/** Images with pages or menus of their own: the settings sheet says what to enter, the steps say in which order. */
export const readySteps = ({ system }: CardSettings, context: Context): Step[] => [
	...STEPS[system](context),
	...(context.facts.cardId === undefined ? [] : [rightOutput(context)])
];

const STEPS: Readonly<Record<CardSettings['system'], (context: Context) => readonly Step[]>> = {
	plain: () => [],
	player: playerSteps,
	platform: () => platformSteps
};
