import { minuteOfTime } from '../../basics/calendar';
import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import { fix } from './change';
import { totalMs } from './delay';
import { contrastOf, delayOf } from './figures';
import { legibleSizes } from '../../standards/legibility';
import type { PictureSettings } from './settings';
import { panelShape, type PictureWay } from './way';

/** Fewer lines of the smallest readable letters than this make no notice. */
const FEWEST_LINES = 8;
/** Below this, grey text is lost. Source: WCAG 2.2, 1.4.3, asks for 4.5 of the page; the room may not take more than that. */
const LEAST_CONTRAST = 7;

export function assessSight(settings: PictureSettings, way: PictureWay): Finding[] {
	const panel = panelShape(way);
	if (!panel || !way.chosen || !way.screen) return [];
	const out: Finding[] = [];
	const { fontPx } = legibleSizes(panel, way.chosen.timing.heightPx, settings.distanceM, settings);
	const lines = Math.floor(way.chosen.timing.heightPx / (fontPx * 1.3));
	if (lines < FEWEST_LINES)
		out.push({
			id: 'picture.text-small',
			level: 'note',
			title: `From ${settings.distanceM}\u2009m only ${lines} lines of text can be read`,
			why: `Letters must be ${fontPx}\u2009px there. Pictures and films do not mind; subtitles, clocks and notices do. A larger screen, or people nearer by, gives more.`,
			setting: 'picture.distanceM',
			fixes: []
		});
	const contrast = contrastOf(settings, way.screen);
	if (contrast < LEAST_CONTRAST)
		out.push({
			id: 'picture.washed-out',
			level: 'caution',
			title: `In that light white is only ${contrast.toFixed(1)} times as bright as black`,
			why: `${way.screen.name} gives ${way.screen.peakCdM2}\u2009cd/m², and the light on it fills its black. ${way.screen.panel === 'projector' ? 'A projector makes no black of its own: darken the room, make the picture smaller, or hang a panel instead' : 'Shade it, turn it from the window, or take a brighter one'}; until then nothing but black on white can be read.`,
			setting: 'picture.light',
			fixes: []
		});
	return out;
}

/** Hours a day that it is on. */
const hoursOn = ({ hours }: PictureSettings): number => {
	if (!hours) return 24;
	return ((minuteOfTime(hours.until) - minuteOfTime(hours.from) + 1440) % 1440 || 1440) / 60;
};
/** A picture that stands for longer harms such a panel within months. Typical. */
const LONG_STILL_SEC = 300;

export function assessStill(settings: PictureSettings, { screen }: PictureWay, { facts }: Context): Finding[] {
	if (screen!.panel !== 'oled' && screen!.panel !== 'tube') return [];
	if (facts.wish !== 'photos' && facts.wish !== 'notices') return [];
	const stands = settings.stillSec > LONG_STILL_SEC || facts.listed === 1;
	if (!stands || hoursOn(settings) < 4) return [];
	return [
		{
			id: 'picture.burn-in',
			level: 'caution',
			title: 'A picture that stands so long burns itself in',
			why: `${screen!.name} makes its light in each pixel, and those that are bright for ${hoursOn(settings).toFixed(0)} hours a day wear first. ${settings.shifts ? 'Moving it by a few pixels spares its edges, not what is large and bright. ' : ''}Let pictures change, and the screen rest at night.`,
			setting: 'picture.stillSec',
			fixes: [
				fix('Change every 12 s, move a little, dark from 22:00 to 08:00', {
					stillSec: 12,
					shifts: true,
					hours: { from: '08:00', until: '22:00' }
				})
			]
		}
	];
}

/** Above this a pointer is felt to lag behind the hand. Source: ISO 9241-410 leaves it to the task; typical. */
const FELT_MS = 100;

/** What a computer sends over Wi-Fi. */
export function assessDelay(settings: PictureSettings, context: Context): Finding[] {
	const shares = delayOf(settings, context);
	if (shares.length === 0) return [];
	const out: Finding[] = [];
	if (context.facts.way === 'radio')
		out.push({
			id: 'picture.by-radio',
			level: 'caution',
			title: 'The computer\u2019s picture comes over Wi-Fi',
			why: 'Nothing that is lost is sent again: lost packets show as torn blocks, and a busy channel as a picture that stands still. A wire has neither.',
			setting: 'network.way',
			fixes: [{ label: 'Use Ethernet', apply: context.change.useWired() }]
		});
	const ms = totalMs(shares);
	if (ms > FELT_MS)
		out.push({
			id: 'picture.delay',
			level: 'note',
			title: `The picture comes ${ms.toFixed(0)}\u2009ms late`,
			why: `${shares.map(({ what, ms: part }) => `${what} ${part.toFixed(0)}`).join(', ')}. A pointer drags behind; for films and slides nobody minds. The set\u2019s own game or computer mode saves most of it.`,
			setting: 'network.way',
			fixes: []
		});
	return out;
}
