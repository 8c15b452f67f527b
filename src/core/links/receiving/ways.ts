import type { Context } from '../../link/context';
import { chosenParts } from '../../parts/chosen';
import type { ReceivingSettings } from './settings';

/** The ways by which others send. */
export type Way = 'bluetooth' | 'server' | 'rtp';
/** The same in words. */
export const WAY_WORDS: Readonly<Record<Way, string>> = { bluetooth: 'Bluetooth', server: 'sound server', rtp: 'RTP' };

/** The ways that a plan uses. */
export const waysOf = (settings: ReceivingSettings): Way[] =>
	(['bluetooth', 'server', 'rtp'] as const).filter((way) => settings[way]);

/** Gives phones a place to send to, by BlueZ. The package's own unit has this name too, and offers more than is wanted. */
export const SINK_UNIT = 'bluealsa.service';
/** Plays what phones send. */
export const PLAYS_UNIT = 'bluealsa-aplay.service';
/** Answers phones that want to pair. */
export const PAIRING_UNIT = 'yphos-pairing.service';
/** The sound server for computers. */
export const SERVER_UNIT = 'yphos-sound-server.service';
/** Plays what comes by RTP. */
export const RTP_UNIT = 'yphos-rtp.service';
/** Stops the list while somebody sends. */
export const GIVES_WAY_UNIT = 'yphos-gives-way.service';

/** Units that open the converter for what others send. */
export const soundingUnits = (settings: ReceivingSettings): string[] =>
	waysOf(settings).map((way) => ({ bluetooth: PLAYS_UNIT, server: SERVER_UNIT, rtp: RTP_UNIT })[way]);

/** Where the sound server waits. Source: PulseAudio 16.1, module-native-protocol-tcp. */
export const SERVER_PORT = 4713;

/** The name that is announced. */
export const announced = (settings: Pick<ReceivingSettings, 'name'>, { facts }: Context): string =>
	settings.name || facts.endpointName;

/** The list is stopped while somebody sends, where there is a list. */
export const givesWay = (settings: ReceivingSettings, { facts }: Context): boolean =>
	settings.meanwhile === 'rests' && facts.programme !== undefined && waysOf(settings).length > 0;

/** Programs that want the converter: each receiver, and the player. */
export const programsThatSound = (settings: ReceivingSettings, { facts }: Context): number =>
	waysOf(settings).length + (facts.programme === undefined ? 0 : 1);

/** What the best of its Bluetooth adapters sends with, dBm; null: it has none. */
export function adapterDbm(context: Context): number | null {
	const all = chosenParts(context).flatMap(({ part }) =>
		(part.kind === 'board' || part.kind === 'add-on') && part.bluetoothDbm !== null ? [part.bluetoothDbm] : []
	);
	return all.length ? Math.max(...all) : null;
}
