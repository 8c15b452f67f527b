import type { Context } from '../../../link/context';
import type { Finding, Fix } from '../../../link/finding';
import { wiredPart } from '../../../parts/chosen';
import { change } from '../change';
import { ACTIONS, clashesIn, USUAL_KEYS } from './controls';
import type { PictureSettings } from '../settings';

/** Keys that mean two things, and what nobody can ask for. */
export function assessControls({ controls, phonePassword }: PictureSettings, context: Context): Finding[] {
	const { facts } = context;
	if (controls.length === 0) return assessPages(context, phonePassword);
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
	const power = (by: 'keyboard' | 'phone'): Fix => ({
		label: by === 'phone' ? 'Put it on a page for a phone' : 'Let the power key do it',
		apply: change((all) => ({
			...all,
			controls: [
				...all.controls.slice(0, 23),
				{ action: 'shut-down', by, key: by === 'phone' ? '' : USUAL_KEYS['shut-down'], scancode: '' }
			]
		}))
	});
	if (facts.comesBackAlone === false && !controls.some(({ action }) => action === 'shut-down'))
		out.push({
			id: 'picture.no-shutdown-key',
			level: 'note',
			title: 'Nobody can shut it down safely',
			why: 'Somebody will switch it on and off by hand, and pulling the plug is the only way to do so at the set.',
			setting: 'picture.controls',
			fixes: [power('keyboard'), power('phone')]
		});
	if (controls.some(({ by, action }) => by === 'phone' && action === 'shut-down') && !phonePassword)
		out.push({
			id: 'picture.phone-open',
			level: 'note',
			title: 'Whoever is on this network can shut it down',
			why: 'The page asks nobody who they are. Where guests share the network with it, give them one of their own, or leave that button out.',
			setting: 'picture.controls',
			fixes: [
				{ label: 'Ask for a password', apply: change({ phonePassword: true }) },
				{
					label: 'Leave that button out',
					apply: change((all) => ({
						...all,
						controls: all.controls.filter(({ by, action }) => by !== 'phone' || action !== 'shut-down')
					}))
				}
			]
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
	return [...out, ...assessRemote(controls, context), ...assessPages(context, phonePassword)];
}

/** A remote is seen by an eye, and each of its keys has a code. */
function assessRemote(controls: PictureSettings['controls'], context: Context): Finding[] {
	const out: Finding[] = [];
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
	if (controls.some(({ by }) => by === 'remote') && !wiredPart(context, 'eye'))
		out.push({
			id: 'picture.no-eye',
			level: 'note',
			title: 'Nothing here sees the remote',
			why: 'No eye for infra-red is among the parts. One on the header costs little; one that is plugged in by USB, or the set\u2019s own remote over CEC, does as well.',
			setting: 'parts.also',
			fixes: [{ label: 'Add an eye on the header', apply: context.change.addPart('remote-eye') }]
		});
	return out;
}

/** Pages that a phone shows at once, whoever holds it. */
const assessPages = ({ facts }: Context, asksPassword: boolean): Finding[] =>
	facts.byPhone && !asksPassword
		? [
				{
					id: 'picture.phone-shows',
					level: 'note',
					title: 'Whoever is on this network can show a page at once',
					why: 'The page for a phone asks nobody who they are; what can be shown are your own pages. Where guests share the network with it, give them one of their own.',
					setting: 'notices.showByPhone',
					fixes: [{ label: 'Ask for a password', apply: change({ phonePassword: true }) }]
				}
			]
		: [];
