import { lines, MEDIA_DIR, textFile } from '../../../files/cardFile';
import { placesIn } from '../../../files/mediaPlace';
import type { CardFile } from '../../../link/file';
import type { Context } from '../../../link/context';
import type { Step } from '../../../link/step';
import { conversionsOf, convertCommand, type Conversion } from '../lists/convert';
import { byHand } from './onCard';
import type { SourceItem, SourcesSettings } from '../settings';

/** A sheet of paper holds so many; the list itself names the others. */
const NAMED = 12;
const namesOf = (paths: readonly string[]): string =>
	paths.length <= NAMED
		? paths.join(', ')
		: `${paths.slice(0, NAMED).join(', ')} and ${paths.length - NAMED} more, as playlist.m3u8 of the card set names them`;

/** Below a layer in memory, where what is copied stays. */
const BELOW = '/media/root-ro';

/** sftp takes a word in double quotes; within them a backslash saves a quote, another backslash, and what would be a pattern. Source: sftp(1); OpenSSH 9.2, sftp.c, makeargv; tried with it. */
const sftpWord = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;

const COPY_LIST = 'copy-media.sftp';

/** What sftp is to copy, under which names: the same on every kind of computer. None where nothing is copied over a network. */
export function copyFile(settings: SourcesSettings, context: Context): CardFile[] {
	const files = byHand(settings, context);
	const { keeper, way, root } = context.facts;
	if (files.length === 0 || keeper === '' || way === 'none') return [];
	const placeOf = placesIn(settings.items);
	const below = root === 'overlay' ? BELOW : '';
	return [
		textFile(
			`docs/${COPY_LIST}`,
			'Which of your files go to the endpoint, and under which names; sftp reads it.',
			lines(
				'sources.items',
				...files.map(
					({ location }) => `put ${sftpWord(`./${location}`)} ${sftpWord(below + placeOf(location).inPlaylist)}`
				)
			)
		)
	];
}

const CONVERT_LIST = 'convert-media.sh';

/** What makes films anew that the board does not play, for the person's own computer. */
export function convertFile(settings: SourcesSettings, context: Context): CardFile[] {
	const made = madeAnew(settings, context);
	if (made.length === 0) return [];
	return [
		textFile(
			`docs/${CONVERT_LIST}`,
			'Makes films anew on your own computer, so that they play as they should.',
			lines('sources.items', '#!/bin/sh', 'set -e', ...made.map((one) => convertCommand(one, 'posix'))),
			'0755'
		)
	];
}

const madeAnew = ({ items }: SourcesSettings, context: Context): Conversion[] =>
	conversionsOf(items, context).flatMap(({ made }) => made ?? []);

/** Before anything is written: films that the board does not play, or not as they should look, are made anew. */
export function convertSteps(settings: SourcesSettings, context: Context): Step[] {
	const [first, ...rest] = madeAnew(settings, context);
	if (!first) return [];
	return [
		{
			id: 'convert-media',
			phase: 'gather',
			do: `${first.location}${rest.length ? ` and ${rest.length} more do` : ' does'} not play as ${rest.length ? 'they' : 'it'} should on this endpoint. On your own computer, in the folder that holds ${rest.length ? 'them' : 'it'}, make ${rest.length ? 'them' : 'it'} anew${rest.length ? `; ${CONVERT_LIST} of the card set\u2019s docs does all of them` : ''}. Then add the new file${rest.length ? 's' : ''} under Sources, and write the set once more.`,
			command: convertCommand(first, 'posix'),
			expect: `${first.name}${rest.length ? ' and the others' : ''}, whole to the last second.`
		}
	];
}

/** How the person's own files get to the endpoint, once it has a folder for them. */
export function copySteps(settings: SourcesSettings, context: Context): Step[] {
	const files = byHand(settings, context);
	const { keeper, way, hostName, root, system } = context.facts;
	if (files.length === 0) return [];
	const many = `${files.length} file${files.length > 1 ? 's' : ''} of yours`;
	if (system !== 'plain')
		return [
			{
				id: 'copy-media',
				phase: 'set up',
				needs: ['logged in'],
				makes: ['media there'],
				do: `Copy ${many} to the endpoint, as its own pages say, and add them to its list.`,
				expect: 'Its list shows them.'
			}
		];
	const after = { phase: 'check', needs: ['applied'] } as const;
	if (keeper === '' || way === 'none') return [...openBelow(root), stickStep(settings, files, many, root)];
	return [
		...openBelow(root),
		{
			...after,
			id: 'copy-media',
			makes: ['media there'],
			do: `Copy ${many}. On your own computer, open a command line in the folder that holds ${files.length > 1 ? 'them' : 'it'}, put ${COPY_LIST} from the card set\u2019s docs beside ${files.length > 1 ? 'them' : 'it'}, and run this; Windows, macOS and Linux bring sftp.`,
			command: `sftp -oBatchMode=no -b ${COPY_LIST} ${keeper}@${hostName}.local`,
			expect: 'A line for each file, and no "not found". verify.sh compares them all.'
		}
	];
}

const openBelow = (root: 'writable' | 'overlay'): Step[] =>
	root === 'overlay'
		? [
				{
					id: 'open-below',
					phase: 'check',
					needs: ['applied'],
					makes: ['root open'],
					do: 'The root is read-only: open what lies below the layer in memory until the next restart.',
					command: `sudo mount -o remount,rw ${BELOW}`,
					expect: 'No answer means that it is open. The restart closes it again.'
				}
			]
		: [];

function stickStep(
	settings: SourcesSettings,
	files: readonly SourceItem[],
	many: string,
	root: 'writable' | 'overlay'
): Step {
	const placeOf = placesIn(settings.items);
	const to = `${root === 'overlay' ? BELOW : ''}${MEDIA_DIR}`;
	const renamed = files.filter(({ location }) => !placeOf(location).inPlaylist.endsWith(`/${location}`));
	return {
		id: 'copy-media',
		phase: 'check',
		needs: ['applied', 'root open'],
		makes: ['media there'],
		do: `Bring ${many} on a USB stick, under the names ${namesOf(files.map(({ location }) => placeOf(location).inPlaylist.slice(MEDIA_DIR.length + 1)))}${renamed.length ? ' (some differ from yours: rename them first)' : ''}. Put it into the endpoint.`,
		command: `sudo mount -o ro /dev/sda1 /mnt && sudo install -D -m 0644 -t ${to} /mnt/*.*; sudo umount /mnt`,
		expect: 'Nothing is said. When there is no /dev/sda1, lsblk names the stick.'
	};
}
