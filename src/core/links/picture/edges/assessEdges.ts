import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { fix } from '../change';
import { anyEdge, NO_EDGES, questionEdges } from './overscan';
import type { PictureSettings } from '../settings';
import type { PictureWay } from '../way';
import { modeInWords } from '../modes/written';

/** Most that the kernel's property for margins takes, px. Source: Linux 6.1, drm_mode_create_tv_margin_properties(). */
const MOST_KERNEL_MARGIN = 100;
/** What is safe for a set that nobody has read yet, of each side: pictures within the action-safe area, text within the graphics-safe one. Source: EBU R 95. */
const SAFE_PART = { action: 0.035, graphics: 0.05 } as const;

export function assessEdges(settings: PictureSettings, { facts }: Context, { screen, chosen }: PictureWay): Finding[] {
	const { edges, wholePicture, edgesBy } = settings;
	if (!chosen) return [];
	if (!anyEdge(edges)) {
		if (!screen!.cutsEdges || wholePicture === 'on') return [];
		const hasText = (facts.pages?.length ?? 0) > 0;
		const part = SAFE_PART[hasText ? 'graphics' : 'action'];
		const safe = {
			left: Math.round(chosen.timing.widthPx * part),
			right: Math.round(chosen.timing.widthPx * part),
			top: Math.round(chosen.timing.heightPx * part),
			bottom: Math.round(chosen.timing.heightPx * part)
		};
		return [
			{
				id: 'picture.edges-unread',
				level: 'caution',
				title: 'The set cuts its edges, and nobody has read how much',
				why: `${wholePicture === 'untried' ? 'Look first for a setting of the set that shows the whole picture: it may be called full pixel, just scan or 1:1, often under picture size. Then nothing needs trimming and nothing is scaled.' : 'Without such a setting, read the edges off the test card.'} Until then captions and clocks at the edge are lost. ${hasText ? 'Text keeps 5\u2009% from each side, a picture 3.5: EBU R 95.' : 'A picture keeps 3.5\u2009% from each side: EBU R 95.'}`,
				setting: 'picture.edges',
				fixes: [
					fix('The set shows everything now', { wholePicture: 'on' }),
					fix(`Leave ${part * 100} % free on each side for now`, { edges: safe })
				]
			}
		];
	}
	const odd = questionEdges(chosen.timing, edges).map(({ code, message }): Finding => ({
		id: `picture.edges-${code}`,
		level: code === 'impossible' ? 'stop' : code === 'shape' ? 'note' : 'caution',
		title: {
			impossible: 'These edges leave no picture',
			much: 'One edge is read very large',
			uneven: 'The edges are uneven',
			shape: 'What is left has another shape'
		}[code as 'impossible' | 'much' | 'uneven' | 'shape'],
		why: message,
		setting: 'picture.edges',
		fixes: code === 'shape' ? [] : [fix('Forget the reading', { edges: NO_EDGES })]
	}));
	const widest = Math.max(...Object.values(edges));
	if (edgesBy === 'kernel')
		odd.push({
			id: 'picture.kernel-margins',
			level: widest > MOST_KERNEL_MARGIN ? 'caution' : 'note',
			title:
				widest > MOST_KERNEL_MARGIN ? 'The kernel\u2019s margins end at 100 pixels' : 'Not every driver knows margins',
			why: 'Where the display\u2019s driver has them, everything is scaled into what is left, console too: a little softer, and nobody else has to know. Where it has not, they are passed over without a word. The player\u2019s own margins work everywhere, for what the player shows.',
			setting: 'picture.edgesBy',
			fixes: [fix('Leave them to the player', { edgesBy: 'player' })]
		});
	return odd;
}

/** A screen that is off when the board starts, and who tells the kernel. */
export function assessStart(settings: PictureSettings, { facts }: Context, { output, chosen }: PictureWay): Finding[] {
	if (output !== 'digital' || !chosen) return [];
	const out: Finding[] = [];
	if (settings.whenOff === 'force' && !settings.writesEdid)
		out.push({
			id: 'picture.forced-blind',
			level: 'caution',
			title: 'A screen that is off at the start would be driven blind',
			why: `The connector is switched on by force, so the picture is there when the screen wakes. But a kernel that could not ask the screen knows neither its modes nor that it takes sound: it ${chosen.from === 'own' ? 'sends 1024 × 768, which many televisions refuse' : `computes ${modeInWords(chosen.timing)} by formula`}, and sends no sound. An EDID on the card tells it both. Costs: another screen plugged in later is driven like this one.`,
			setting: 'picture.writesEdid',
			fixes: [
				fix('Write an EDID of our own', { writesEdid: true }),
				fix('Start the player anew when a screen comes', { whenOff: 'restart' })
			]
		});
	if (facts.startsBy === null && facts.system === 'plain')
		out.push({
			id: 'picture.kernel-by-hand',
			level: 'note',
			title: 'The kernel\u2019s line is yours to change',
			why: 'Nobody has said how the board starts, so the card set does not bring the line that the kernel reads. Paste it under Card, and the set brings it with mode, EDID and rotation added; else the run sheet says what to add.',
			setting: 'card.bootStyle',
			fixes: []
		});
	return out;
}
