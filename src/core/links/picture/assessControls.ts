import type { Context, Finding } from '../../link';
import { change } from './change';
import { ACTIONS, clashesIn, USUAL_KEYS } from './controls';
import type { PictureSettings } from './settings';

/** Keys that mean two things, and what nobody can ask for. */
export function assessControls({ controls }: PictureSettings, { facts }: Context): Finding[] {
	if (controls.length === 0) return [];
	const out = clashesIn(controls).map(({ key, actions }): Finding => ({
		id: `picture.clash-${key}`,
		level: 'caution',
		title: `${key} asks for two things at once`,
		why: `It stands for ${actions.map((action) => ACTIONS[action].words).join(' and ')}: both happen at each press. Give one of them another key.`,
		setting: 'picture.controls',
		fixes: actions.map((action) => ({
			label: `Only "${ACTIONS[action].words}"`,
			apply: change((all) => ({
				...all,
				controls: all.controls.filter((control) => control.key !== key || control.action === action)
			}))
		}))
	}));
	if (facts.comesBackAlone === false && !controls.some(({ action }) => action === 'shut-down'))
		out.push({
			id: 'picture.no-shutdown-key',
			level: 'note',
			title: 'Nobody can shut it down by a key',
			why: 'Somebody will switch it on and off by hand, and pulling the plug is the only way to do so at the set.',
			setting: 'picture.controls',
			fixes: [
				{
					label: 'Let the power key do it',
					apply: change((all) => ({
						...all,
						controls: [
							...all.controls.slice(0, 23),
							{ action: 'shut-down', by: 'keyboard', key: USUAL_KEYS['shut-down'], scancode: '' }
						]
					}))
				}
			]
		});
	const uncoded = controls.filter(({ by, scancode }) => by === 'remote' && scancode === '');
	if (uncoded.length > 0)
		out.push({
			id: 'picture.remote-unlearned',
			level: 'caution',
			title:
				uncoded.length === 1
					? 'One key of the remote has no code yet'
					: `${uncoded.length} keys of the remote have no code yet`,
			why: 'Each remote sends codes of its own. On the endpoint, run "sudo ir-keytable -c -p nec -t", press the key, and enter the scancode that it prints.',
			setting: 'picture.controls',
			fixes: []
		});
	if (facts.cardId === undefined && controls.some(({ action }) => ['louder', 'quieter', 'mute'].includes(action)))
		out.push({
			id: 'picture.volume-of-nothing',
			level: 'note',
			title: 'A key for the volume, and no sound',
			why: 'This endpoint is silent by plan: such keys do nothing.',
			setting: 'picture.controls',
			fixes: [
				{
					label: 'Take them out',
					apply: change((all) => ({
						...all,
						controls: all.controls.filter(({ action }) => !['louder', 'quieter', 'mute'].includes(action))
					}))
				}
			]
		});
	return out;
}
