import { tellerFor, type Machine } from '../../engines/machine';
import { PLAYER_UNIT } from '../../files/cardFile';
import type { Playing } from './player/options';
import { play } from './player/play';
import { rehearseOnAir } from './rules/rehearseOnAir';
import { NOW_PATH } from './service';
import { PROGRAMME_WORDS } from './words';

/** To notice that a stream has dried up. Typical. */
const STREAM_DRY_MS = 10_000;

/** The player, and the small programs that tell it when to be quiet. */
export default function rehearseProgramme(machine: Machine): void {
	const tell = tellerFor(machine, 'programme', PROGRAMME_WORDS);
	let playing: Playing | null = null;
	rehearseOnAir(machine, tell);
	machine.programs.set('/usr/bin/mpv', (process) => {
		if (machine.offers.playAddress?.(process)) return;
		play({ process, machine, tell, playsNow: (now) => (playing = now) });
	});
	machine.on('unit-asked', ({ verb, unit }) => {
		if (unit !== PLAYER_UNIT) return;
		const now = machine.disk.read(NOW_PATH);
		// What the rules begin and end they tell of themselves.
		if (now === null) tell.event(verb === 'stop' ? 'quiet-begins' : 'quiet-ends', 'info');
		if (verb === 'stop') machine.emit('player-rests', tell.said(now === '\n' ? 'nothing-on' : 'quiet'));
	});
	machine.on('unit-held-back', ({ unit, why }) => {
		if (unit === PLAYER_UNIT) machine.emit('player-fails', tell.said('held-back', { why }));
	});
	machine.on('unit-skipped', (unit) => {
		if (unit !== PLAYER_UNIT) return;
		if (machine.disk.read(NOW_PATH) === '\n') return machine.emit('player-rests', tell.said('nothing-on'));
		tell.event('stays-off', 'info');
		machine.emit('player-rests', tell.said('quiet'));
	});
	machine.on('userspace', () => {
		playing = null;
		// An endpoint that only receives has none.
		if (machine.disk.unit(PLAYER_UNIT) && !machine.disk.enabled.includes(PLAYER_UNIT)) {
			tell.event('nothing-starts', 'bad');
			machine.emit('player-fails', tell.said('is-not-started'));
		}
	});
	machine.on('offline', () => {
		const current = playing;
		if (current?.streams)
			current.after(STREAM_DRY_MS, () => {
				if (playing === current && !machine.online) current.lost();
			});
	});
	machine.on('fault', ({ name, on }) => {
		const current = playing;
		if (name === 'stream-refuses' && on && current?.streams)
			current.after(1000, () => playing === current && current.lost());
		if (name === 'stream-pauses' && on && current?.streams)
			current.after(current.bufferMs, () => {
				if (playing === current && machine.activeFaults.has(name)) current.dry();
			});
	});
}
