import type { Context, Step } from '../../link';
import { formatBytes, formatSeconds, withUnit } from '../../basics/format';
import { filesToFetch, readySteps } from './ready';
import { computeWriteMin } from './wear';
import type { CardSettings } from './settings';

/** From fetching the image to an endpoint that says it is as planned; what differs between kinds of images stands in its own part. */
export const cardSteps = (settings: CardSettings, context: Context): Step[] => [
	...fetchSteps(settings, context),
	...writeSteps(settings, context),
	...growSteps(settings),
	...(settings.system === 'plain' ? plainSteps(settings, context) : readySteps(settings, context)),
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
			id: 'check-image',
			phase: 'prepare',
			do: 'Drop the image on the page Write the card, and paste the digest.',
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
						do: 'Format the card first, with the card makers\u2019 own tool or the camera\u2019s menu.',
						expect: 'One empty partition of nearly the size printed on it. A smaller one tells of a false card.',
						caution: 'Formatting wipes the whole disk, as writing does. Be as sure of it as for the next step.'
					}
				]
			: []),
		{
			id: 'write-image',
			phase: 'prepare',
			do: 'Write the image to the card with the commands that the page Write the card gives for your computer.',
			expect: `A first partition that your computer can open, with the boot files on it.${takes ? ` About ${takes}.` : ''}`,
			caution:
				'Writing an image wipes the whole disk it goes to. Compare size and model twice; if two disks could be the card, pull it out and see which one goes.',
			reading: 'minutes that it took'
		},
		{
			id: 'read-back',
			phase: 'prepare',
			do: 'Read it back and compare, with the last command of the same page.',
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

function plainSteps(card: CardSettings, { facts }: Context): Step[] {
	return [
		{
			id: 'copy-set',
			phase: 'prepare',
			do: 'Copy everything inside the card set\u2019s boot folder onto the card\u2019s first partition. Replace files of the same name.',
			expect: 'The partition shows a folder named yphos.'
		},
		...(facts.way === 'none'
			? [
					{
						id: 'borrow-cable',
						phase: 'assemble' as const,
						do: 'For the first start alone, join it by cable to a router that reaches the internet: packages are fetched. Join a screen, too: it shows what apply.sh says.',
						expect:
							'The lights at its socket flicker once it runs. When the screen has shown "done", cable and screen can go for good. Nobody logs in to an endpoint without a network: what is to be typed there is for the image\u2019s own user, when it has one.'
					}
				]
			: []),
		{
			id: 'apply',
			phase: 'set up',
			do:
				facts.school === 'files'
					? 'A system that reads user-data has set itself up by now, or is doing so. Wait for it, and run apply.sh: where all is well it changes nothing.'
					: 'Run this once:',
			command: `${facts.school === 'files' ? 'cloud-init status --wait; ' : ''}sudo bash /boot/firmware/yphos/apply.sh`,
			expect:
				'Its last line says "done". It may take minutes while packages are fetched; should it restart by itself meanwhile, log in again.',
			needsRestart: true
		},
		...(card.root === 'overlay'
			? [
					{
						id: 'overlay-change',
						phase: 'live' as const,
						do: 'To change what is planned, copy the new card set onto the first partition and run apply.sh again: it works below the layer in memory by itself. Anything else that shall stay is done below it, too:',
						command: 'sudo overlayroot-chroot',
						expect:
							'A prompt within the card\u2019s own root; exit leaves it. What is changed without it is gone after the next restart.'
					}
				]
			: []),
		{
			id: 'verify',
			phase: 'check',
			do: 'Ask the endpoint whether it is as planned. It only reads.',
			command: 'sudo bash /boot/firmware/yphos/verify.sh',
			expect: 'No line begins with WRONG. Keep what it prints: it is a probe report too.'
		}
	];
}

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

/** Minutes that writing takes, in words; null while the image or the card is not known. */
export function writeTime(settings: CardSettings, context: Context): string | null {
	const card = context.part('card', context.facts.parts.card);
	const bytes = settings.image?.rawBytes;
	return card && bytes
		? `${formatSeconds(computeWriteMin(bytes, card) * 60_000)} for ${formatBytes(bytes)} at ${withUnit(card.writeMBps, 0, 'MB/s')}`
		: null;
}
