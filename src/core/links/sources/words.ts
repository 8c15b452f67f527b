import type { Words } from '../../engines/machine';

/** The sources' events in words, by code. */
export const SOURCES_WORDS = {
	refuses: () => 'The stream server refuses from now on',
	answers: () => 'The stream server answers again',
	'stands-still': () => 'Nothing comes of the stream',
	flows: () => 'The stream comes again',
	'server-sleeps': () => 'The file server sleeps',
	'server-wakes': () => 'The file server is awake',
	'name-gone': () => 'The file server\u2019s name leads nowhere',
	'name-back': () => 'The file server\u2019s name is known again',
	'password-refused': () => 'The file server refuses the password',
	'password-taken': () => 'The file server takes the password again',
	'share-closed': () => 'The file server lets nobody write any more',
	'share-opened': () => 'The file server lets the endpoint write again',
	'share-filled': () => 'The share is full',
	'share-emptied': () => 'The share has room again',
	'stick-gone': () => 'The stick is pulled out',
	'stick-back': () => 'The stick is plugged in'
} as const satisfies Words;

export default SOURCES_WORDS;
