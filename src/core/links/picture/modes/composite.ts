/**
 * The yellow socket of a board as Debian's kernel drives it: off until it is told otherwise, and with 525 lines whatever the set is made for.
 * Source: Linux 6.1, vc4_vec.c and the device trees of such boards.
 */
import type { Finding } from '../../../link/finding';
import type { PartOf } from '../../../parts/schema';
import { timingOf, type VideoTiming } from '../../../standards/videoTiming';
import { fix } from '../change';
import type { PictureSettings } from '../settings';
import type { PictureWay } from '../way';

/** What the kernel calls the socket. */
export const COMPOSITE = 'Composite-1';

/** The one mode of its driver; another standard can be asked for only from Linux 6.3 on. */
export const TV_TIMING: VideoTiming = timingOf([0, 720, 480, 13_500, [734, 798, 858], [487, 493, 525], '--i']);

/** Where two digital outputs share its clock, the device tree leaves it off. Source: Linux 6.1, bcm2711-rpi-4-b.dts. */
export const isLeftOff = ({ sockets }: PartOf<'board'>): boolean =>
	sockets
		.filter(({ way, plug }) => way === 'out' && plug.startsWith('display'))
		.reduce((sum, { count }) => sum + count, 0) > 1;

/** A set of 625 lines shows 525 only where it was made for both: its handbook says so. */
const takesTv = (screen: Pick<PartOf<'screen'>, 'refreshHz'>, ranges: PictureSettings['ranges']): boolean =>
	(ranges?.vMaxHz ?? screen.refreshHz) > 59;

const BOTH_STANDARDS = { hMinKhz: 15, hMaxKhz: 16, vMinHz: 50, vMaxHz: 60 };

/** A socket that is off, that the settings miss, or that sends what the set was not made for. */
export function assessComposite(settings: PictureSettings, { output, board, screen }: PictureWay): Finding[] {
	const isNamed = settings.connector.startsWith('Composite-');
	if (output !== 'composite')
		return output === 'digital' && isNamed
			? [
					{
						id: 'picture.connector-other',
						level: 'stop',
						title: 'The chosen connector is the yellow socket',
						why: `${screen!.name} hangs on a digital one. The player would open ${settings.connector}, and the screen stays at the console.`,
						setting: 'picture.connector',
						fixes: [fix('Use HDMI-A-1', { connector: 'HDMI-A-1' })]
					}
				]
			: [];
	const out: Finding[] = [];
	if (board && isLeftOff(board))
		out.push({
			id: 'picture.composite-off',
			level: 'stop',
			title: 'The yellow picture is off on this board',
			why: `On boards with two digital outputs these share their clock with it, and Debian\u2019s device tree leaves it off: there is no connector to send by. Take a board with one digital output, a converter from HDMI to the yellow plug, or the system of the board\u2019s maker, which can switch it on.`,
			setting: 'parts.board',
			fixes: []
		});
	if (!isNamed)
		out.push({
			id: 'picture.connector-other',
			level: 'stop',
			title: `${settings.connector} is not where this screen hangs`,
			why: `The kernel calls the yellow socket ${COMPOSITE}. Nothing would be sent there.`,
			setting: 'picture.connector',
			fixes: [fix(`Use ${COMPOSITE}`, { connector: COMPOSITE })]
		});
	if (screen && !takesTv(screen, settings.ranges))
		out.push({
			id: 'picture.tv-standard',
			level: 'stop',
			title: 'The set is made for 625 lines, and 525 are sent',
			why: 'Debian 12\u2019s kernel sends 525 lines at 59.94 fields a second (NTSC) by the yellow socket, and nothing on the card can ask it for 625 (PAL). Most sets since the nineties show both: their handbook says so, or a try. One that does not rolls, or has no colour; a converter from HDMI to the yellow plug with a switch for PAL then does better.',
			setting: 'picture.ranges',
			fixes: [fix('Its handbook says that it shows both', { ranges: BOTH_STANDARDS })]
		});
	return out;
}
