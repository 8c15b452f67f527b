import { fromHex, toBase64 } from '../../../formats/edid';
import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { refreshHzOf } from '../../../standards/videoTiming';
import { cadenceWords, stutters } from './cadence';
import { fix } from '../change';
import type { PictureSettings } from '../settings';
import { choiceOf, type PictureWay } from '../way';
import { modeInWords, ownEdid } from './written';

/** What the screen says of itself. */
export function assessWord(
	settings: PictureSettings,
	context: Context,
	{ edid, output, screen, chosen, candidates }: PictureWay
): Finding[] {
	if (edid) {
		const [first] = edid.remarks;
		return first
			? [
					{
						id: 'picture.edid-odd',
						level: edid.remarks.some(({ code }) => code === 'checksum' || code === 'missing-blocks')
							? 'caution'
							: 'note',
						title: 'What the screen says of itself is not all in order',
						why: `${edid.remarks.map(({ message }) => message).join(' ')} An EDID of our own, written from the chosen mode, takes its place where it fails.`,
						setting: 'picture.edid',
						fixes: settings.writesEdid ? [] : [fix('Write an EDID of our own', { writesEdid: true })]
					}
				]
			: [];
	}
	if (settings.edid !== '')
		return [
			{
				id: 'picture.edid-unreadable',
				level: 'caution',
				title: 'The EDID cannot be read',
				why: 'Its header is wrong, or it is less than one block. Read it again from the screen, or take it out: then modes are taken from the screen\u2019s class.',
				setting: 'picture.edid',
				fixes: [fix('Take it out', { edid: '' })]
			}
		];
	if (output === 'ladder' && !settings.ranges)
		return [
			{
				id: 'picture.no-label',
				level: 'caution',
				title: 'Nobody knows which rates the old monitor follows',
				why: `On this way it cannot say so itself, and a mode beyond its rates shows nothing; very old tubes can be harmed by one. Read its label: ranges in kHz across and Hz down.`,
				setting: 'picture.ranges',
				fixes: [
					fix('It is a plain one: 30 to 80 kHz, 56 to 75 Hz', {
						ranges: { hMinKhz: 30, hMaxKhz: 80, vMinHz: 56, vMaxHz: 75 }
					})
				]
			}
		];
	if (output !== 'digital' || settings.ranges) return [];
	return assessUnasked(settings, context, { screen, chosen, candidates });
}

/** A screen that nobody has asked: is the mode one that its class has for certain? */
function assessUnasked(
	settings: PictureSettings,
	context: Context,
	{ screen, chosen, candidates }: Pick<PictureWay, 'screen' | 'chosen' | 'candidates'>
): Finding[] {
	const reported = context.probe?.connectors.find(({ name, edidHex }) => edidHex && name.endsWith(settings.connector));
	const useReport = reported
		? [fix('Use the one of the probe report', { edid: toBase64(fromHex(reported.edidHex!)) })]
		: [];
	const word = 'Read its EDID, from a probe report or a file: then it is known.';
	if (!chosen || chosen.certain || chosen.refused.length > 0)
		return [
			{
				id: 'picture.no-edid',
				level: 'note',
				title: 'Nobody has asked the screen what it takes',
				why: `${settings.writesEdid ? `Our EDID says what ${screen!.name} should take by its class.` : `The endpoint takes the mode that ${screen!.name} prefers itself, of this size and at about 60\u2009Hz by its class.`} Its own EDID, from a probe report or a file, makes it certain, and opens the others.`,
				setting: 'picture.edid',
				fixes: useReport
			}
		];
	const sure = candidates.find(({ certain, refused }) => certain && refused.length === 0);
	return [
		{
			id: 'picture.mode-uncertain',
			level: 'stop',
			title: `Nobody knows whether the screen has ${modeInWords(chosen.timing)}`,
			why: settings.writesEdid
				? `Nobody has asked it, and with an EDID of our own the board sends the mode whether the screen takes it or not. ${word}`
				: `Many of its class have it, not all, and nobody has asked this one. Where it lacks it, the player finds no such mode and shows nothing. ${word}`,
			setting: 'picture.edid',
			fixes: [
				...useReport,
				sure
					? fix(`Take what the screen prefers, ${modeInWords(sure.timing)} or so`, { mode: null })
					: fix('Leave the screen its own word, and its own mode', { writesEdid: false, mode: null })
			]
		}
	];
}

/** Whether the mode passes everything on the way. */
export function assessMode(settings: PictureSettings, context: Context, way: PictureWay): Finding[] {
	const { chosen, candidates, compositor } = way;
	const best = candidates.find(({ refused }) => refused.length === 0);
	const useBest = best ? [fix(`Use ${modeInWords(best.timing)}`, { mode: choiceOf(best) })] : [];
	if (way.unknownChoice)
		return [
			{
				id: 'picture.mode-unknown',
				level: 'stop',
				title: 'The chosen mode is none that this screen has',
				why: 'It was chosen for another screen, or with another EDID. The player finds no such mode and shows nothing.',
				setting: 'picture.mode',
				fixes: useBest
			}
		];
	if (!chosen)
		return [
			{
				id: 'picture.none-goes',
				level: 'stop',
				title: 'No mode passes board, cable and screen',
				why: `The best of them fails because ${candidates[0]?.refused.join('; ') ?? 'the screen announces none'}. Take a cable or adapter that carries more, or another screen.`,
				setting: 'picture.mode',
				fixes: []
			}
		];
	if (chosen.refused.length > 0)
		return [
			{
				id: 'picture.mode-refused',
				level: 'stop',
				title: `${modeInWords(chosen.timing)} does not get there`,
				why: `${chosen.refused.join('; ')}. The screen stays dark, or says that it has no signal.`,
				setting: 'picture.mode',
				fixes: useBest
			}
		];
	if (compositor && compositor !== chosen) {
		const [why] = compositor.refused;
		return [
			{
				id: 'picture.compositor-mode',
				level: why ? 'stop' : 'caution',
				title: `Pages are shown in ${modeInWords(compositor.timing)}, whatever is chosen`,
				why: `The browser\u2019s compositor takes the mode that the screen prefers, and asks nobody. ${why ? `That one does not get there: ${why}.` : 'Pages are laid out for the chosen one, so they stand too large or too small.'} An EDID of our own, which prefers the chosen mode, is all that it heeds.`,
				setting: 'picture.mode',
				fixes: [
					fix('Write an EDID of our own', { writesEdid: true, mode: choiceOf(chosen) }),
					...(why ? [] : [fix('Use what the screen prefers', { mode: null })])
				]
			}
		];
	}
	const written = ownEdid(settings, context);
	if (written && !written.ok)
		return [
			{
				id: 'picture.edid-unwritable',
				level: 'stop',
				title: 'That mode cannot stand in an EDID',
				why: `${written.faults[0]!.message}`,
				setting: 'picture.writesEdid',
				fixes: [fix('Leave the screen its own', { writesEdid: false })]
			}
		];
	return [];
}

/** Films whose frames fall unevenly. */
export function assessCadence({ chosen, candidates }: PictureWay, context: Context): Finding[] {
	if (!chosen?.cadence || !stutters(chosen.cadence)) return [];
	const { film } = context.facts;
	const fitting = candidates.filter(({ refused, cadence }) => refused.length === 0 && !stutters(cadence!));
	const even = fitting.filter(({ certain }) => certain);
	return [
		{
			id: 'picture.uneven',
			level: 'caution',
			title: `${film!.framesPerSec} frames a second stutter on ${Number(refreshHzOf(chosen.timing).toFixed(2))}\u2009Hz`,
			why: `Frames do not fall evenly, ${cadenceWords(chosen.cadence)}: slow pans show it. ${even.length > 0 ? 'A mode that fits the film ends it.' : fitting.length > 0 ? `${modeInWords(fitting[0]!.timing)} would fit; read the screen\u2019s EDID to know whether it has that.` : `No mode of this screen fits. Bring the film to a rate that does: ffmpeg with -r ${Math.round(refreshHzOf(chosen.timing) / 2)} makes it anew, and the stutter then lies in the file.`}`,
			setting: 'picture.mode',
			fixes: even.slice(0, 2).map((one) => fix(`Use ${modeInWords(one.timing)}`, { mode: choiceOf(one) }))
		}
	];
}
