import { lines, rootPath, textFile } from '../../files/cardFile';
import { alsaString } from '../../formats/alsa/conf';
import { writeDeviceName } from '../../formats/alsa/deviceName';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import { SHARED_NAME } from './deviceName';
import { playbackOf } from './route';
import { WAIT_FOR_SOUND } from './scripts';
import type { SoundSettings } from './settings';

/** asound.conf, so that every other program on the endpoint finds the same converter, and a small script that waits for it. */
export function soundFiles(settings: SoundSettings, context: Context): CardFile[] {
	const { cardId, deviceNumber, door, travel, fixedRateHz } = settings;
	if (cardId === '') return [];
	const direct = writeDeviceName(door, cardId, deviceNumber);
	const formats = playbackOf(settings, context)?.playback.formats ?? ['S16_LE'];
	const mixFormat =
		['S32_LE', 'S24_3LE', 'S16_LE'].find((format) => (formats as readonly string[]).includes(format)) ?? 'S16_LE';
	const shared: CardLine[] =
		travel === 'shared'
			? [
					...lines(
						'sound.travel',
						`pcm.${SHARED_NAME} {`,
						'\ttype dmix',
						'\tipc_key 5978',
						'\tipc_gid audio',
						'\tipc_perm 0660',
						'\tslave {'
					),
					...lines('sound.cardId', `\t\tpcm ${alsaString(writeDeviceName('hw', cardId, deviceNumber))}`),
					...lines('sound.fixedRateHz', `\t\trate ${fixedRateHz}`),
					...lines('sound.travel', `\t\tformat ${mixFormat}`, '\t\tchannels 2', '\t}', '}')
				]
			: [];
	const content: CardLine[] = [
		...lines(
			'sound',
			'# Every program that asks for no device in particular gets the converter, converted where need be.'
		),
		...shared,
		...lines('sound', 'pcm.!default {', '\ttype plug'),
		...lines('sound.cardId', `\tslave.pcm ${alsaString(travel === 'shared' ? SHARED_NAME : direct)}`),
		...lines('sound', '}', 'ctl.!default {', '\ttype hw'),
		...lines('sound.cardId', `\tcard ${alsaString(cardId)}`),
		...lines('sound', '}')
	];
	return [
		textFile(rootPath('/etc/asound.conf'), 'Which converter, and how programs reach it.', content),
		textFile(
			rootPath('/opt/yphos/bin/wait-for-sound.sh'),
			'Holds the player back until the converter is there.',
			lines('sound', ...WAIT_FOR_SOUND),
			'0755'
		)
	];
}
