import { readM3u } from '../../../formats/playlist/m3u';
import type { Teller } from '../../../engines/machine';
import { PLAYER_START_MS } from '../timing';
import type { PROGRAMME_WORDS } from '../words';
import { ListPlayer } from './list';
import { openingOf, screenOf } from './opening';
import { optionsOf, OUTPUTS, textFor, SILENT, STILL, type Player } from './options';

/** The player from its command line to its list, or why it does not come so far. */
export function play(player: Player): void {
	const { process, machine, tell } = player;
	const fails = (why: ReturnType<Teller<typeof PROGRAMME_WORDS>['said']>): void => machine.emit('player-fails', why);
	const given = optionsOf(player);
	const options = new Map(given.map(({ name, value }) => [name, value]));
	const list = readM3u(textFor(player, options.get('playlist') ?? '') ?? '');
	if (!list.ok) {
		tell.event('list-unreadable', 'bad', { why: list.faults[0]!.message });
		fails(tell.said('list-empty'));
		return process.after(PLAYER_START_MS, () => process.exit(1));
	}
	if (!machine.systemd.isOther(process.unit)) tell.event('as-root', 'bad');
	const output = options.get('ao');
	if (output !== undefined && !OUTPUTS.includes(output)) {
		tell.event('no-such-output', 'bad', { output });
		return fails(tell.said('told', { why: 'the player knows no such output' }));
	}
	const still = STILL.find(([name, value]) => options.get(name) === value);
	const silent = SILENT.find(([name, value]) => options.get(name) === value);
	const screen = screenOf(options);
	// Sound that is wanted off is no fault where a picture is shown.
	if (still || (silent && !screen)) {
		const [name, value, why] = (still ?? silent)!;
		tell.event('told-silent', 'bad', { option: `${name}=${value}`, why });
		// It goes on, and nobody hears it.
		return fails(tell.said('told', { why }));
	}
	if (silent) machine.emit('player-silent', tell.said('told', { why: silent[2] }));
	const refused = silent ? null : machine.systemd.mayUse(process.unit, 'audio', 'char-alsa');
	if (refused) {
		tell.event('may-not-open', 'bad', { why: refused });
		fails(tell.said('told', { why: refused }));
		if (!screen) return process.after(PLAYER_START_MS, () => process.exit(2));
	}
	const opening = openingOf(player, given, !silent && !refused);
	new ListPlayer(player, list.value.entries, opening).start();
}
