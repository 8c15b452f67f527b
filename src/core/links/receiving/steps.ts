import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { PAIR_PATH } from './files';
import type { ReceivingSettings } from './settings';
import { announced, givesWay, SERVER_PORT } from './ways';

/** A tone that any system with ffmpeg can send. */
const TONE = '-re -f lavfi -i sine=frequency=660:duration=20';

/** Sends a file, or a tone, by RTP; by itself ffmpeg makes packets that fit on a wire. Source: ffmpeg-protocols(1), rtp; ffmpeg-formats(1), mpegts. */
export const rtpCommand = (input: string, host: string, port: number): string =>
	`ffmpeg ${input} -vn -c:a aac -b:a 192k -ac 2 -ar 48000 -f rtp_mpegts rtp://${host}:${port}`;
/** Makes the endpoint one of a computer's outputs, by whichever of the two sound servers it has. Source: PulseAudio 16.1 and PipeWire 0.3, module-tunnel-sink. */
export const tunnelCommand = (host: string, name: string): string =>
	`pactl load-module module-tunnel-sink server=tcp:${host}:${SERVER_PORT} sink_name=${name.toLowerCase().replace(/[^a-z0-9]+/g, '-') || 'endpoint'}`;

/** Phones paired, each way tried once, and what the list does meanwhile. */
export function receivingSteps(settings: ReceivingSettings, context: Context): Step[] {
	const { hostName } = context.facts;
	const host = `${hostName}.local`;
	const name = announced(settings, context);
	const listRests = givesWay(settings, context)
		? ' The list stops within two seconds, and goes on three seconds after the end.'
		: '';
	const tried = (id: string, how: string, command: string | null): Step => ({
		id,
		phase: 'live',
		do: how,
		...(command === null ? {} : { command }),
		caution: 'Begin quietly: turn the sender down before it plays.',
		expect: `It is heard from the endpoint.${listRests}`,
		reading: 'seconds from pressing to hearing'
	});
	return [
		...(settings.bluetooth && settings.pairing === 'once'
			? [
					{
						id: 'receive-pair',
						phase: 'check' as const,
						needs: ['verified' as const],
						do: `Pair each phone once: start this, then choose \u201c${name}\u201d among the phone\u2019s Bluetooth devices. It ends by itself after three minutes; Ctrl+C ends it sooner.`,
						command: `sudo ${PAIR_PATH}`,
						expect:
							'\u201cmay come back\u201d with the phone\u2019s address. A phone asks for no code: whoever is near may pair meanwhile, so look at the addresses. bluetoothctl remove ADDRESS takes one out; one that has forgotten the endpoint must be taken out before it pairs again.',
						reading: 'phones paired'
					}
				]
			: []),
		...(settings.bluetooth
			? [
					tried(
						'receive-phone',
						`Send music from a phone to \u201c${name}\u201d, at ${settings.beginsPercent}\u2009% to begin with; then go as far away as it is to be used${settings.walls ? ', behind the walls' : ''}.`,
						null
					)
				]
			: []),
		...(settings.server
			? [
					tried(
						'receive-server',
						'On a Linux computer, make the endpoint one of its outputs, choose it in the sound settings, and play something.',
						tunnelCommand(host, name)
					)
				]
			: []),
		...(settings.rtp
			? [
					tried(
						'receive-rtp',
						'From a computer with ffmpeg, send twenty seconds of a tone.',
						rtpCommand(TONE, host, settings.rtpPort)
					)
				]
			: [])
	];
}
