/** What is read away from the page, so that typing goes on: each takes a file's bytes and gives a result, never an exception. */
import { readPlaylist } from '$core/formats/playlist';
import { readFileListing } from '$core/formats/fileListing';
import { readHolidays } from '$core/formats/holidays';
import { readPartsFile } from '$core/parts/file';
import { openWorkshop } from '$core/plan/open';
import { readProbe } from '$core/probe';
import { readDisks } from '$core/disks/read';

const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);

export const readers = {
	playlist: readPlaylist,
	listing: readFileListing,
	holidays: (bytes: Uint8Array, fromYear: number) => readHolidays(text(bytes), fromYear),
	parts: (bytes: Uint8Array) => readPartsFile(text(bytes)),
	workshop: (bytes: Uint8Array, zone: string) => openWorkshop(text(bytes), zone),
	probe: (bytes: Uint8Array) => readProbe(text(bytes)),
	disks: (bytes: Uint8Array) => readDisks(text(bytes))
} as const;
export type Readers = typeof readers;
