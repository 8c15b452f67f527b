import type { CardFile, CardLine } from '../link/file';
import type { SettingPath } from '../link/setting';

/** Where images show the card's first partition, the usual place first. Source: Debian's raspi-firmware; systemd's bootctl(1), --esp-path=. */
export const FIRST_PARTITION_AT = ['/boot/firmware', '/boot', '/boot/efi', '/efi'] as const;

/** Lines that all come from one setting. */
export const lines = (setting: SettingPath, ...texts: readonly string[]): CardLine[] =>
	texts.map((text) => ({ text, setting }));

/** A file made of lines, readable by all unless another mode is given. */
export const textFile = (
	path: string,
	why: string,
	content: readonly CardLine[],
	mode: CardFile['mode'] = '0644'
): CardFile => ({ path, mode, why, lines: content });

/** The place on the card of a file that belongs at `target` on the endpoint. */
export const rootPath = (target: string): string => `boot/yphos/root${target}`;

/** What stands where on the endpoint, for links that meet there. */
export const PLAYER_UNIT = 'yphos-player.service';
/** The timer and the service that switch the screen. */
export const SCREEN_UNIT = 'yphos-screen';
/** The unit that finds what is on by the rules, and its timer. */
export const ON_AIR_UNIT = 'yphos-on-air';
/** Pages as pictures: puts what is to be seen now under each page's id. */
export const PICTURES_UNIT = 'yphos-pages';
/** What a phone is shown lies here, and is read each time it asks. */
export const PHONE_DIR = '/opt/yphos/phone';
/** Before an entry of a playlist: the first and last day on which it is on, such as 20261201-20261224. */
export const OF_DAYS = '#YPHOS-DAYS:';
/** The list that the player reads. */
export const PLAYLIST_PATH = '/opt/yphos/playlist.m3u8';
/** The file of a playlist, beside the list of everything, so that what it lists lies in the same place; "all": that one. */
export const listPath = (id: string): string => (id === 'all' ? PLAYLIST_PATH : `/opt/yphos/list-${id}.m3u8`);
/** Fetches what stands at an address of the web, for every script that does. */
export const ASK_PATH = '/opt/yphos/bin/ask.sh';
/** Where media of the card set lie. */
export const MEDIA_DIR = '/opt/yphos/media';
