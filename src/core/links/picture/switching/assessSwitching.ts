import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { fix } from '../change';
import type { PictureSettings } from '../settings';
import { goesDark } from '../../../onAir/followed';
import { isOnBy, socketOf, switches } from './switching';
import type { PictureWay } from '../way';

/** Who switches the set, and what it does when mains comes back. */
export function assessSwitching(settings: PictureSettings, context: Context, { output }: PictureWay): Finding[] {
	const { offBy, afterCut } = settings;
	const out: Finding[] = [];
	const hasCec = output === 'digital';
	if (switches(settings) && offBy === 'cec' && !hasCec)
		out.push({
			id: 'picture.no-cec',
			level: 'caution',
			title: 'Nothing on this way carries CEC',
			why: 'Only an HDMI cable takes the word to the set. Ended signals put most old monitors to sleep; a switched socket takes their mains.',
			setting: 'picture.offBy',
			fixes: [fix('End the signal instead', { offBy: 'signal' })]
		});
	if (goesDark(settings) && offBy === 'socket') {
		if (!socketOf(context))
			out.push({
				id: 'picture.no-socket',
				level: 'stop',
				title: 'No switched socket is among the parts',
				why: 'The hours switch a socket that is not there, and the set stays as it is.',
				setting: 'picture.offBy',
				fixes: [
					{ label: 'Add a switched socket', apply: context.change.addPart('socket-switched') },
					...(hasCec ? [fix('Switch it by CEC', { offBy: 'cec' })] : [])
				]
			});
		if (afterCut === 'stays-off')
			out.push({
				id: 'picture.socket-stays-off',
				level: 'stop',
				title: 'The set stays off when its socket comes on',
				why: 'It waits for its own button after each time without mains: it would go dark on the first evening and stay so. Look in its menu for what it does when power returns.',
				setting: 'picture.afterCut',
				fixes: [
					...(hasCec ? [fix('Switch it by CEC', { offBy: 'cec' })] : []),
					fix('It comes on by itself now', { afterCut: 'comes-on' })
				]
			});
	}
	if (afterCut === 'stays-off' && offBy !== 'cec' && !(goesDark(settings) && offBy === 'socket'))
		out.push({
			id: 'picture.cut-stays-off',
			level: 'caution',
			title: 'After a power cut somebody must switch the set on',
			why: `The endpoint comes back by itself, the set does not.${hasCec ? ' By CEC it is woken at each start.' : ' Its menu may know of another way: look for what it does when power returns.'}`,
			setting: 'picture.afterCut',
			fixes: hasCec ? [fix('Wake it by CEC', { offBy: 'cec' })] : []
		});
	if (settings.darkWhileResting && isOnBy(context) === null)
		out.push({
			id: 'picture.never-rests',
			level: 'note',
			title: 'By the programme something is always on',
			why: 'No rule and no quiet hours say when nothing is, so the screen stays on. Add a rule that shows nothing, or quiet hours, or switch the screen by the hour.',
			setting: 'picture.darkWhileResting',
			fixes: [
				fix('Leave it on', { darkWhileResting: false }),
				fix('Off from 20:00 to 08:00', { darkWhileResting: false, hours: { from: '08:00', until: '20:00' } })
			]
		});
	return out;
}
