import type { Context, Step } from '../../link';
import { formatBytes, formatSeconds, withUnit } from '../../format';
import type { Plan } from '../../plan/plan';
import { computeWriteMin } from './wear';

/** From fetching the image to an endpoint that says it is as planned; what differs between kinds of images stands in its own part. */
export const cardSteps = (plan: Plan, context: Context): Step[] => [
	...fetchSteps(plan),
	...writeSteps(plan, context),
	...growSteps(plan),
	...(plan.card.system === 'plain' ? plainSteps(plan) : readySteps(plan)),
	...endSteps(plan)
];

function fetchSteps({ card }: Plan): Step[] {
	const kinds = {
		plain: 'a plain Debian system image for your board, the kind without a desktop',
		player: 'the player image for your board',
		platform: 'the platform image for your board; of its versions take the one for your board\u2019s memory'
	};
	return [
		{
			id: 'fetch-image',
			phase: 'gather',
			do: `Fetch ${kinds[card.system]}, and the digest that stands beside it${card.image ? ` (you chose ${card.image.name})` : ''}.`,
			expect: 'Two things: the image, and a line of letters and digits.'
		},
		...(card.system === 'platform'
			? [
					{
						id: 'fetch-archive',
						phase: 'gather' as const,
						do: 'Fetch the second archive that the platform wants, in the same version, and copy it unopened onto a memory stick formatted as FAT32.',
						expect: 'The stick holds that one archive, at its top.'
					}
				]
			: []),
		{
			id: 'check-image',
			phase: 'prepare',
			do: 'Drop the image on the page Write the card, and paste the digest.',
			expect: 'The same. Anything else: fetch it again, from the publisher\u2019s own page.'
		}
	];
}

function writeSteps(plan: Plan, context: Context): Step[] {
	const takes = writeTime(plan, context);
	return [
		...(plan.card.prepare === 'format'
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
const growSteps = ({ card }: Plan): Step[] => [
	{
		id: 'grow',
		phase: 'first start',
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

function plainSteps({ card, network }: Plan): Step[] {
	return [
		{
			id: 'copy-set',
			phase: 'prepare',
			do: 'Copy everything inside the card set\u2019s boot folder onto the card\u2019s first partition. Replace files of the same name.',
			expect: 'The partition shows a folder named yphos.'
		},
		{
			id: 'apply',
			phase: 'first start',
			do:
				network.school === 'files'
					? 'Wait for the first start. A system that reads user-data sets itself up; on any other, run this once:'
					: 'Run this once:',
			command: 'sudo bash /boot/firmware/yphos/apply.sh',
			expect: 'Its last line says "done". It may take minutes while packages are fetched.',
			needsRestart: true
		},
		...(card.root === 'overlay'
			? [
					{
						id: 'overlay-change',
						phase: 'live' as const,
						do: 'To change anything later, do it below the layer in memory:',
						command: 'sudo overlayroot-chroot bash /boot/firmware/yphos/apply.sh',
						expect: 'It says "done". What is changed without overlayroot-chroot is gone after the next restart.'
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

/** Images with pages or menus of their own: the settings sheet says what to enter, the steps say in which order. */
function readySteps({ card, sound, network }: Plan): Step[] {
	const output = sound.cardId ? `the output named ${sound.cardId}` : 'the output that the plan names';
	return [
		...(card.system === 'platform'
			? ([
					{
						id: 'recovery',
						phase: 'first start',
						do: 'Put the stick in, and start the board into its recovery: hold the key that its instructions name while power comes.',
						expect:
							'A menu of large buttons. Without a remote: arrows, Enter and Escape of a keyboard do; F1 is mostly Home, F2 Back.'
					},
					{
						id: 'second-archive',
						phase: 'first start',
						do: 'Install the archive from the stick, then wipe cache (not data), then restart.',
						expect: 'The restart takes longer than any later one: up to ten minutes with a moving picture.'
					},
					{
						id: 'hidden-settings',
						phase: 'first start',
						do: 'In Settings, About, choose the build number seven times: hidden settings appear. There choose the sound output and the screen\u2019s size.',
						expect: 'A line says that you are a developer now; a new entry stands in Settings.'
					}
				] as const)
			: ([
					{
						id: 'own-page',
						phase: 'first start',
						do: `Open the player\u2019s own page in a browser: http://${network.hostName}.local or its number. Enter what docs/settings-sheet.html of the card set says, from top to bottom.`,
						expect: 'Each page says that it has saved.',
						needsRestart: true
					}
				] as const)),
		{
			id: 'right-output',
			phase: 'check',
			do: `Play something and see that it comes out of ${output}, not out of the screen or the jack.`,
			expect:
				'Sound from the right place, and none from the wrong one. This is what goes wrong most often with ready-made images.'
		}
	];
}

const endSteps = ({ card }: Plan): Step[] => [
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
export function writeTime(plan: Plan, context: Context): string | null {
	const card = context.part('card', plan.parts.card);
	const bytes = plan.card.image?.rawBytes;
	return card && bytes
		? `${formatSeconds(computeWriteMin(bytes, card) * 60_000)} for ${formatBytes(bytes)} at ${withUnit(card.writeMBps, 0, 'MB/s')}`
		: null;
}
