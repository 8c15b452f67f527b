import type { Words } from '../../engines/machine';

/** The notices' events in words, by code. */
export const NOTICES_WORDS = {
	'compositor-fails': ({ why }: { why: string }) => `The compositor ends: ${why}`,
	'no-screen': ({ why }: { why: string }) => `The browser has no screen: ${why}`,
	'browser-begins': () => 'The browser begins',
	'page-missing': ({ path }: { path: string }) => `The browser finds no page at ${path}`,
	'page-broken': ({ why }: { why: string }) => `The page cannot be read: ${why}`,
	'part-missing': ({ path }: { path: string }) => `The page lacks ${path}`,
	'script-kept-out': () => 'The page\u2019s own rules keep its script from running',
	'policy-open': () => 'The page has lost its rules: what a feed says could run as a program',
	'page-crashes': () => 'The page crashes; the browser goes on, with a message of its own',
	crashed: () => 'the browser shows that its page has crashed',
	silent: () => 'pages without sound',
	white: () => 'the browser shows an empty page',
	ended: ({ why }: { why: string }) => why,
	'on-air': ({ title, why }: { title: string; why: string }) => [
		`Shown: ${title}`,
		why ? `rule: ${why}` : 'no rule holds'
	],
	'by-hand': ({ title }: { title: string }) => [`Shown: ${title}`, 'by phone'],
	rests: ({ why }: { why: string }) => ['Black: nothing is on', why ? `rule: ${why}` : 'no rule holds'],
	'zone-lacks': ({ page, zone, why }: { page: string; zone: string; why: string }) => [
		`${page}, ${zone}: ${why}`,
		'it shows what the zone says for that'
	],
	'film-unplayed': ({ title, codec }: { title: string; codec: string }) => [
		`${title} stays black`,
		`the browser decodes no ${codec}`
	],
	boxes: ({ page, zone, letters }: { page: string; zone: string; letters: string }) => [
		`${page}, ${zone}: an empty box for each ${letters}`,
		'no typeface on the endpoint has them'
	],
	'zone-again': ({ page, zone }: { page: string; zone: string }) => `${page}, ${zone}: as it should be again`,
	'feed-not-there': ({ title, path }: { title: string; path: string }) =>
		`${title} has not been fetched: the page finds nothing at ${path}, and shows it as it was made`,
	'picture-now': ({ page, from }: { page: string; from: string }) => [
		`The picture of ${page} is changed`,
		from ? `drawn for ${from} UTC and after` : 'what of it holds on any day'
	],
	'picture-gone': ({ page, path }: { page: string; path: string }) =>
		`${page} is to show ${path}, and there is no such picture`,
	'page-gone': ({ title }: { title: string }) => `${title} is to be shown, and the page does not have it`,
	'media-missing': ({ title, path }: { title: string; path: string }) => `${title} is not shown: ${path} is not there`,
	'as-root': () => 'The browser runs as the administrator',
	'feed-refuses': () => 'Feeds refuse',
	'feed-answers': () => 'Feeds answer again'
} as const satisfies Words;

export default NOTICES_WORDS;
