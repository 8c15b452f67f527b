/** The card: room for system and media, and the script that puts the card set in place. Thin: capacity only. */
import { claimsOn, type Claim } from '../../claims';
import { formatBytes } from '../../format';
import type { Context, Finding, Link } from '../../link';
import type { Plan } from '../../plan/plan';
import { cardFiles, sealCard } from './files';
import { rehearseCard } from './rehearse';
import { computeCardRoom } from './room';
import { cardSettings, type CardSettings } from './settings';

/** A plain system without a desktop, with the packages this endpoint adds. Typical. */
const SYSTEM_GB = 3.2;

function room(plan: Plan, context: Context, claims: readonly Claim[]) {
	const card = context.part('card', plan.parts.card);
	if (!card) return null;
	const neededBytes = claimsOn(claims, 'store').reduce((sum, claim) => sum + claim.bytes, 0);
	const { usableBytes } = computeCardRoom({
		capacityGb: card.capacityGb,
		reservedPercent: plan.card.reservePercent,
		systemGb: SYSTEM_GB
	});
	return { card, neededBytes, usableBytes, freeBytes: usableBytes - neededBytes };
}

function assess(plan: Plan, context: Context, claims: readonly Claim[]): Finding[] {
	const r = room(plan, context, claims);
	if (!r)
		return [
			{
				id: 'card.unknown',
				level: 'note',
				title: 'Nothing can be said of the room yet',
				why: 'Choose a card; then what fits on it stands here.',
				setting: 'parts.card',
				fixes: []
			}
		];
	if (r.freeBytes >= 0) return [];
	const larger = context.drawer
		.flatMap((part) =>
			part.kind === 'card' &&
			computeCardRoom({ capacityGb: part.capacityGb, reservedPercent: plan.card.reservePercent, systemGb: SYSTEM_GB })
				.usableBytes >= r.neededBytes
				? [part]
				: []
		)
		.sort((a, b) => a.capacityGb - b.capacityGb)[0];
	return [
		{
			id: 'card.too-small',
			level: 'stop',
			title: `The card is ${formatBytes(-r.freeBytes)} too small`,
			why: `${formatBytes(r.neededBytes)} of media and ${SYSTEM_GB}\u2009GB of system do not fit on ${r.card.name} with ${plan.card.reservePercent}\u2009% kept free.`,
			setting: 'parts.card',
			fixes: larger
				? [{ label: `Use ${larger.name}`, apply: (p) => ({ ...p, parts: { ...p.parts, card: larger.id } }) }]
				: []
		}
	];
}

export const card: Link<CardSettings> = {
	id: 'card',
	title: 'Card',
	settings: cardSettings,
	claims: () => [],
	figures(plan, context, claims) {
		const r = room(plan, context, claims);
		if (!r)
			return [
				{
					id: 'free',
					label: 'Free',
					text: 'no card',
					value: null,
					sure: 'assumed',
					from: 'Choose a card.',
					telling: true
				}
			];
		return [
			{
				id: 'free',
				label: 'Left free',
				text: r.freeBytes < 0 ? 'too small' : `${formatBytes(r.freeBytes)} free`,
				value: r.freeBytes,
				sure: 'typical',
				from: `Capacity less ${plan.card.reservePercent}\u2009% reserve, ${SYSTEM_GB}\u2009GB system and media.`,
				telling: true
			},
			{
				id: 'capacity',
				label: 'Capacity',
				text: `${r.card.capacityGb}\u2009GB`,
				value: r.card.capacityGb,
				sure: 'exact',
				from: 'Printed on the card; decimal gigabytes.'
			},
			{
				id: 'media',
				label: 'Media on the card',
				text: formatBytes(r.neededBytes),
				value: r.neededBytes,
				sure: 'exact',
				from: 'Sum of the files that go on the card.'
			}
		];
	},
	assess,
	files: cardFiles,
	seal: sealCard,
	steps: () => [
		{
			id: 'write-image',
			phase: 'prepare',
			do: 'Write a plain Debian system image for your board to the card, with your own computer\u2019s disk tool.',
			expect: 'A first partition that your computer can open, with the boot files on it.',
			caution:
				'Writing an image wipes the whole disk it goes to. Compare size and model twice; if two disks could be the card, pull it out and see which one goes.'
		},
		{
			id: 'copy-set',
			phase: 'prepare',
			do: 'Copy everything inside the card set\u2019s boot folder onto the card\u2019s first partition. Replace files of the same name.',
			expect: 'The partition shows a folder named yphos.'
		},
		{
			id: 'apply',
			phase: 'first start',
			do: 'Wait for the first start. A system that reads user-data sets itself up; on any other, run this once:',
			command: 'sudo bash /boot/firmware/yphos/apply.sh',
			expect: 'Its last line says "done". It may take minutes while packages are fetched.',
			needsRestart: true
		},
		{
			id: 'verify',
			phase: 'check',
			do: 'Ask the endpoint whether it is as planned. It only reads.',
			command: 'sudo bash /boot/firmware/yphos/verify.sh',
			expect: 'No line begins with WRONG. Keep what it prints: it is a probe report too.'
		}
	],
	rehearse: rehearseCard
};
