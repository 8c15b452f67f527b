/** All readers of what strangers hand in, each registered in `reads.ts` beside itself; the fuzzing goes through them. */
import type { FuzzedReader } from './reader';

const found = import.meta.glob<readonly FuzzedReader[]>('../**/reads.ts', { eager: true, import: 'default' });

/** A test compares it with the files that export one. */
export const FUZZED: readonly FuzzedReader[] = Object.values(found).flat();

/** Reached only through a reader of the list above. */
export const INNER: readonly string[] = [
	...['readLines', 'readLs', 'readProbes', 'readOpml', 'readPreset'],
	...['readM3u', 'readPls', 'readXspf', 'decodeText', 'parseInstall'],
	...['readLsblk', 'readGetDisk', 'readPart', 'sniffForm'],
	...['readBase', 'readCta', 'readDetailed', 'readDisplayId', 'readTypeSeven'],
	...['readEdidHex', 'readShow', 'readJsonListings', 'readOneValue', 'readSystem', 'splitSections'],
	...['readAgenda', 'readNews', 'readWeather', 'readRule'],
	...['readAplayList', 'readAplayNames', 'readCards', 'readEld', 'readMixers', 'readStream']
];
