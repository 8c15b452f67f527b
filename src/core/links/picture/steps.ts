import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { PHONE_PORT, SHOW_CARD_PATH } from './places';
import { anyEdge } from './edges/overscan';
import type { PictureSettings } from './settings';
import { asksPhonePassword, hasPage } from './controls/phonePage';
import { SCREEN_UNIT } from '../../files/cardFile';
import { goesDark } from '../../onAir/followed';
import { SCREEN_PATH, socketOf } from './switching/switching';
import { pictureWay } from './way';
import { modeInWords } from './modes/written';

/** Screen on and chosen before the board starts, then edges read, proved, and looked at. */
export function pictureSteps(settings: PictureSettings, context: Context, claims: readonly Claim[]): Step[] {
	const way = pictureWay(settings, context);
	const { screen, chosen, output } = way;
	if (!screen) return [];
	const { system, keeper } = context.facts;
	const isPlain = system === 'plain';
	return [
		...kernelSteps(context, claims),
		...(output === 'ladder' && isPlain ? ladderSteps(context) : []),
		{
			id: 'screen-set',
			phase: 'assemble',
			needs: ['joined'],
			makes: ['screen set'],
			do: `Switch on ${screen.name} and choose the input that the cable goes to${screen.cutsEdges ? '. Look through its menu for a setting that shows the whole picture, and choose it' : ''}.`,
			expect: 'It says that it has no signal yet.',
			...(screen.diagonalIn > 20 && screen.panel !== 'projector'
				? {
						caution:
							'A set on a wall needs a bracket and fixings made for its weight and for that wall, and two people. Where mains has to be laid, leave it to somebody licensed for it.'
					}
				: {})
		},
		{
			id: 'first-picture',
			phase: 'check',
			needs: ['verified', 'screen set'],
			makes: ['seen'],
			do: 'Look at the screen.',
			expect: chosen
				? `It shows what is in the list, ${settings.turn ? 'upright, ' : ''}in ${modeInWords(chosen.timing)}; most sets say so when their info key is pressed.`
				: 'It shows what is in the list.',
			reading: 'what the set says of the mode'
		},
		...(isPlain && keeper !== '' ? edgeSteps(settings, screen.cutsEdges) : []),
		...cutSteps(settings, context, screen.name),
		...(hasPage(settings, context.facts) ? [phoneStep(settings, context)] : [])
	];
}

/** What the card set cannot write into a line that nobody has shown it. */
function kernelSteps({ facts }: Context, claims: readonly Claim[]): Step[] {
	const own = claimsOn(claims, 'kernel').filter(({ from }) => from === 'picture');
	if (facts.startsBy !== null || facts.system !== 'plain' || own.length === 0) return [];
	return [
		{
			id: 'kernel-display',
			phase: 'prepare',
			needs: ['set on card', 'card in computer'],
			do: `Where the first partition has cmdline.txt, add this at the end of its one line, after a space; where it has extlinux/extlinux.conf, at the end of the line that begins with append: ${own.map(({ argument }) => argument).join(' ')}`,
			expect: 'The line is still one line, and the file is saved.'
		}
	];
}

/** What the set does when mains comes back, and its socket. */
function cutSteps(settings: PictureSettings, context: Context, name: string): Step[] {
	const socket = goesDark(settings) && settings.offBy === 'socket' ? socketOf(context) : null;
	return [
		...(settings.afterCut === 'untried'
			? [
					{
						id: 'set-after-cut',
						phase: 'check' as const,
						needs: ['seen'] as const,
						do: `Take ${name} off the mains by its plug, count to ten, and plug it in again. Enter under Picture whether it comes on by itself.`,
						expect: 'It comes on, or waits for its button. Many have a setting for it.',
						reading: 'what it did'
					}
				]
			: []),
		...(goesDark(settings) && settings.offBy !== 'socket'
			? [
					{
						id: 'screen-off-once',
						phase: 'check' as const,
						needs: ['seen'] as const,
						do: `Let ${name} be switched off once, as ${settings.darkWhileResting ? 'it will be while nothing is on' : 'its hours will do it'}.`,
						command: `sudo ${SCREEN_PATH} 0000 0001 ${settings.offBy} && sleep 20 && sudo systemctl start ${SCREEN_UNIT}`,
						expect: `It goes dark within 20 seconds and comes back, if something is on now.${settings.offBy === 'cec' ? ' Where it does not, look in its menu for CEC, which makers call by names of their own.' : ''}`
					}
				]
			: []),
		...(socket
			? [
					{
						id: 'switched-socket',
						phase: 'check' as const,
						needs: ['seen'] as const,
						do: `Plug ${name} into ${socket.part.name}. "gpiodetect" names the chips of lines: where the header\u2019s is not gpiochip0, say so in yphos-socket.service. Then switch once.`,
						command: 'sudo systemctl stop yphos-socket && sleep 10 && sudo systemctl start yphos-socket',
						expect: 'The set goes dark for ten seconds, and comes back with its picture.',
						caution:
							'Use a closed, tested socket made for mains, with a low-voltage input and enough amperes for the set; a bare relay on mains kills. What is wired into a wall is for somebody licensed.'
					}
				]
			: [])
	];
}

const phoneStep = (settings: PictureSettings, { facts }: Context): Step => ({
	id: 'phone-page',
	phase: 'check',
	needs: ['verified'],
	do: `On a phone in the same network, open http://${facts.hostName}.local:${PHONE_PORT}/ and press a button. Where .local leads nowhere, use its address.${asksPhonePassword(settings, facts) ? ' It asks for a name, which may be anything, and for the password; let the phone keep it.' : ''} Keep the page as a bookmark for whoever is in charge.`,
	expect: 'A page of buttons, and the endpoint obeys.'
});

const ladderSteps = ({ facts }: Context): Step[] => [
	{
		id: 'ladder-overlay',
		phase: 'check',
		needs: ['applied'],
		do: 'Where the maker of the adapter names an overlay, use that. Else compile the one that the card set brings, on the board, and name it in config.txt below [all] as dtoverlay=yphos-ladder; it counts from the next restart.',
		command: `sudo apt-get install -y device-tree-compiler && sudo dtc -@ -I dts -O dtb -o ${facts.firstPartition}/overlays/yphos-ladder.dtbo ${facts.firstPartition}/yphos/ladder.dts`,
		expect: 'No error. After the restart the old monitor shows a picture.'
	}
];

const edgeSteps = (settings: PictureSettings, cuts: boolean): Step[] =>
	cuts || anyEdge(settings.edges)
		? [
				{
					id: 'read-edges',
					phase: 'check',
					needs: ['seen'],
					makes: ['edges read'],
					do: 'Show the card with the numbered edges, and read each side from where the set is watched: going outwards, the last number that is whole. Enter the four under Picture, or on the phone page.',
					command: `sudo ${SHOW_CARD_PATH} edges bare`,
					expect: 'Numbers on all four sides.',
					reading: 'left, right, top, bottom'
				},
				{
					id: 'prove-edges',
					phase: 'check',
					needs: ['edges read'],
					do: 'Write the card set anew with the edges, apply it, and show the second card.',
					command: `sudo ${SHOW_CARD_PATH} proof`,
					expect: 'A thin line on all four sides, a coloured square in each corner, and a round circle.'
				}
			]
		: [];
