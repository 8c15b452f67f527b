import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { filesToFetch, readySteps } from './ready';
import { writeTime } from './writeTime';
import type { CardSettings } from './settings';

/** From fetching the image to an endpoint that says it is as planned; what differs between kinds of images stands in its own part. */
export const cardSteps = (settings: CardSettings, context: Context): Step[] => [
	...fetchSteps(settings, context),
	...writeSteps(settings, context),
	...growSteps(settings),
	...(settings.system === 'plain' ? plainSteps(settings, context) : readySteps(settings, context)),
	...insertSteps(settings, context),
	...endSteps(settings)
];

function fetchSteps(settings: CardSettings, context: Context): Step[] {
	return [
		...filesToFetch(settings, context).map((file): Step => ({
			id: `fetch-${file.id}`,
			phase: 'gather',
			do: `Fetch ${file.what}, and the digest that stands beside it. It goes ${file.goes}.`,
			expect: file.expect
		})),
		{
			id: 'get-set',
			phase: 'gather',
			do: `Press Download card set, and unpack the file on your computer.${settings.system === 'plain' ? ' It holds a folder boot for the card, and docs for you.' : ' Its folder docs has the settings sheet, which says what to enter.'}`,
			expect: 'A folder in which you can look about. It may hold passwords: keep it where only you can read.',
			makes: ['set unpacked']
		},
		{
			id: 'check-image',
			phase: 'prepare',
			makes: ['image checked'],
			do: 'Drop the image on the page Write the memory card, and paste the digest.',
			expect: 'The same. Anything else: fetch it again, from the publisher\u2019s own page.'
		}
	];
}

function writeSteps(settings: CardSettings, context: Context): Step[] {
	const takes = writeTime(settings, context);
	return [
		...(settings.prepare === 'format'
			? [
					{
						id: 'format-card',
						phase: 'prepare' as const,
						needs: ['image checked'] as const,
						makes: ['card empty'] as const,
						do: 'Format the card first, with the card makers\u2019 own tool or the camera\u2019s menu.',
						expect: 'One empty partition of nearly the size printed on it. A smaller one tells of a false card.',
						caution: 'Formatting wipes the whole disk, as writing does. Be as sure of it as for the next step.'
					}
				]
			: []),
		{
			id: 'write-image',
			phase: 'prepare',
			needs: ['image checked', 'card empty'],
			makes: ['image on card'],
			do: 'Put the card into your computer, and write the image to it with the commands that the page Write the memory card gives for your computer.',
			expect: `A first partition that your computer can open, with the boot files on it.${takes ? ` About ${takes}.` : ''}`,
			caution:
				'Writing an image wipes the whole disk it goes to. Compare size and model twice; if two disks could be the card, pull it out and see which one goes.',
			reading: 'minutes that it took'
		},
		{
			id: 'read-back',
			phase: 'prepare',
			needs: ['image on card'],
			makes: ['card compared'],
			do: 'Read it back and compare, with the commands that follow there. The last one lets go of the card.',
			expect: 'No difference. A card that is smaller than it claims, or worn, shows itself here.'
		}
	];
}

/** Before anything large comes: an image fills two or three gigabytes of the card, whatever its size. */
const growSteps = (card: CardSettings): Step[] => [
	{
		id: 'grow',
		phase: 'set up',
		do:
			card.system === 'plain'
				? 'See that the root fills the card, before anything large is installed. Most images grow it at their first start; when yours has not:'
				: 'Let the image grow to the size of the card: in its own settings, or by itself at the first start. Do this before anything is installed.',
		...(card.system === 'plain'
			? { command: 'df -h /; sudo growpart /dev/mmcblk0 2; sudo resize2fs /dev/mmcblk0p2' }
			: {}),
		expect: 'The root is nearly as large as the card.'
	}
];

/** The card leaves the computer whole, and goes into the board when nothing hides its slot any more. */
const insertSteps = ({ system }: CardSettings, { facts }: Context): Step[] => [
	...(system === 'plain' || facts.school === 'files'
		? [
				{
					id: 'take-out',
					phase: 'prepare' as const,
					needs: ['set on card', 'card in computer', 'card compared', 'converter named'] as const,
					makes: ['card out of computer'] as const,
					do: 'Let the computer eject the card, wait until it says so, and take it out.',
					expect: 'No message that it was not ejected: then the last files would be torn.'
				}
			]
		: []),
	{
		id: 'insert-card',
		phase: 'assemble',
		needs: ['earthed', 'cooled', 'on header', 'boxed'],
		makes: ['card in board'],
		do: 'Put the card into the board, contacts towards the board as its slot shows.',
		expect: 'It sits without force and can be drawn out again.'
	}
];

const ELSEWHERE =
	'Does it say "No such file"? Then findmnt -t vfat names the place of the first partition; choose it under Card, too.';

function plainSteps(card: CardSettings, { facts }: Context): Step[] {
	return [
		{
			id: 'card-again',
			phase: 'prepare',
			needs: ['card compared'],
			makes: ['card in computer'],
			do: 'Pull the card out of the computer and put it in again.',
			expect:
				'Its first partition opens by itself, with the boot files on it. If the computer offers to format or to initialise anything: decline. It cannot read the other partition, and need not.'
		},
		{
			id: 'copy-set',
			phase: 'prepare',
			needs: ['set unpacked', 'card in computer'],
			makes: ['set on card'],
			do: 'Copy everything inside the card set\u2019s boot folder onto the card\u2019s first partition. Replace files of the same name.',
			expect: 'The partition shows a folder named yphos.'
		},
		...borrowedSteps(facts),
		{
			id: 'apply',
			phase: 'set up',
			needs: ['logged in'],
			makes: ['applied'],
			do:
				facts.school === 'files'
					? `A system that reads user-data has set itself up by now, or is doing so. Wait for it, and run apply.sh: where all is well it changes nothing. ${ELSEWHERE}`
					: `Run this once. ${ELSEWHERE}`,
			command: `${facts.school === 'files' ? 'cloud-init status --wait; ' : ''}sudo bash ${facts.firstPartition}/yphos/apply.sh`,
			expect:
				'Its last line says "done". It may take minutes while packages are fetched; should it restart by itself meanwhile, log in again.',
			needsRestart: true
		},
		...laterSteps(card, facts),
		{
			id: 'verify',
			phase: 'check',
			needs: ['media there'],
			makes: ['verified'],
			do: 'Ask the endpoint whether it is as planned. It only reads.',
			command: `sudo bash ${facts.firstPartition}/yphos/verify.sh`,
			expect: 'No line begins with WRONG. Keep what it prints: it is a probe report too.'
		}
	];
}

/** An endpoint without a network is built with one that is lent to it. */
const borrowedSteps = (facts: Context['facts']): Step[] => [
	...(facts.way === 'none'
		? [
				{
					id: 'borrow-cable',
					phase: 'assemble' as const,
					needs: ['boxed', 'on header'] as const,
					makes: ['joined'] as const,
					do: 'For building alone, join it by cable to a router that reaches the internet, and join a screen and a keyboard: packages are fetched, and what follows is typed there.',
					expect: 'The lights at its socket flicker once it runs.'
				},
				{
					id: 'cable-goes',
					phase: 'check' as const,
					needs: ['verified', 'clock set', 'readings taken'] as const,
					makes: ['alone'] as const,
					do: 'Shut it down, and take cable, screen and keyboard away for good.',
					command: 'sudo systemctl poweroff',
					expect: 'Its light stays off. When power comes again it plays with nothing but its own leads.'
				}
			]
		: [])
];

/** How something is changed once it runs. */
const laterSteps = (card: CardSettings, facts: Context['facts']): Step[] => [
	...(card.root === 'overlay'
		? [
				{
					id: 'overlay-change',
					phase: 'live' as const,
					do: `${facts.way === 'none' ? 'With screen and keyboard joined again: to' : 'To'} change what is planned, copy the new card set onto the first partition and run apply.sh again: it works below the layer in memory by itself. Anything else that shall stay is done below it, too:`,
					command: 'sudo overlayroot-chroot',
					expect:
						'A prompt within the card\u2019s own root; exit leaves it. What is changed without it is gone after the next restart.'
				}
			]
		: []),
	...(facts.way !== 'none' && facts.keeper
		? [
				{
					id: 'send-changes',
					phase: 'live' as const,
					do: 'To change something later no card reader is needed: export the workshop from its Venue page, and let Yphos send what has changed. The command, ready to copy, stands above the card files; run it where Yphos is.',
					expect: 'It shows what changes before anything does, sends only that, and ends with what began anew.'
				}
			]
		: [])
];

const endSteps = (card: CardSettings): Step[] => [
	card.ends === 'cut'
		? {
				id: 'cut',
				phase: 'live',
				do:
					card.root === 'overlay'
						? 'Switch it off at the wall whenever you like: nothing is being written.'
						: 'Switched off at the wall, a write is cut now and then. It mends itself at the next start; keep a copy of the card all the same.',
				expect: 'It comes back as before.'
			}
		: {
				id: 'shut-down',
				phase: 'live',
				do: 'Shut it down before power goes, and wait until its light stays off.',
				command: 'sudo systemctl poweroff',
				expect: 'The light blinks and stays off.'
			}
];
