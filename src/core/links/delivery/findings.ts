import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { isWeb, type DeliverySettings } from './settings';

const own = changing<DeliverySettings>('delivery');

const found = (
	id: string,
	level: Finding['level'],
	title: string,
	why: string,
	setting: Finding['setting'],
	...fixes: Fix[]
): Finding => ({ id: `delivery.${id}`, level, title, why, ...(setting ? { setting } : {}), fixes });
const without = ({ change }: Context): Fix => ({ label: 'Do without delivery', apply: change.use('delivery', false) });

/** Whether new content can come at all, and whose it may be. */
export const assessDelivery = (settings: DeliverySettings, context: Context): Finding[] => [
	...assessUse(context),
	...assessFrom(settings, context),
	...assessTrust(settings, context)
];

/** Somebody plays what comes. */
const assessUse = (context: Context): Finding[] => {
	const { facts } = context;
	return [
		...(facts.system !== 'plain'
			? [
					found(
						'not-plain',
						'stop',
						'This kind of image brings its content itself',
						'Fetching is done by scripts on a plain system; a ready-made one has pages of its own for that.',
						'delivery',
						without(context)
					)
				]
			: []),
		...(!facts.programme
			? [
					found(
						'nothing-played',
						'caution',
						'Nothing here plays a list or pages',
						'What is fetched would be shown by nobody.',
						'delivery',
						without(context)
					)
				]
			: [])
	];
};

/** The place that it comes from can be reached. */
const assessFrom = (settings: DeliverySettings, context: Context): Finding[] => {
	const { facts, change } = context;
	const { from } = settings;
	const store = facts.stores?.find(({ at }) => from === at || from.startsWith(`${at}/`));
	return [
		...(from === ''
			? [
					found(
						'from-nowhere',
						'stop',
						'New content is to be fetched from nowhere',
						'Name a folder of a web server, or one on a share or stick. Until then nothing can come.',
						'delivery.from',
						...(facts.stores?.[0]
							? [
									{
										label: `From ${facts.stores[0].words}`,
										apply: own({ from: `${facts.stores[0].at}/${facts.hostName}` })
									}
								]
							: []),
						without(context)
					)
				]
			: []),
		...(isWeb(settings) && facts.way === 'none'
			? [
					found(
						'no-network',
						'stop',
						'Without a network nothing comes from the web',
						'Connect it, or bring new content on a stick.',
						'delivery.from',
						{ label: 'By Ethernet', apply: change.useWired() },
						without(context)
					)
				]
			: []),
		...(from.startsWith('/') && !store
			? [
					found(
						'not-mounted',
						'stop',
						`Nothing is mounted at ${from}`,
						`Folders of shares and sticks begin with the place where they are mounted${facts.stores?.length ? `: ${facts.stores.map(({ at }) => at).join(', ')}` : '. Add a share or a stick under Sources first'}.`,
						'delivery.from',
						...(facts.stores?.[0]
							? [
									{
										label: `From ${facts.stores[0].words}`,
										apply: own({ from: `${facts.stores[0].at}/${facts.hostName}` })
									}
								]
							: []),
						without(context)
					)
				]
			: [])
	];
};

/** Whose content it may be, and how long it stays. */
const assessTrust = (settings: DeliverySettings, { facts, change }: Context): Finding[] => {
	const { from, publicKey, times } = settings;
	return [
		...(from.startsWith('http:') && !publicKey
			? [
					found(
						'anyone',
						'caution',
						'Anybody on the way can put up what they like',
						'http:// is neither proven nor hidden, and no signature is asked for: whoever sits between could show anything in your name. Make a signing key: then it does not matter by which way a set comes. Where its server has a certificate, https:// hides it too.',
						'delivery.publicKey'
					)
				]
			: []),
		...(!publicKey && from !== '' && !from.startsWith('http:')
			? [
					found(
						'unsigned',
						'note',
						'Whoever can write there decides what is shown',
						`No signature is asked for. With a signing key the endpoint takes your own sets alone, even when ${isWeb(settings) ? 'the web server is broken into' : 'others may write to that folder'}.`,
						'delivery.publicKey'
					)
				]
			: []),
		...(facts.root === 'overlay'
			? [
					found(
						'forgotten',
						'note',
						'What was fetched is forgotten at each restart',
						'The root is read-only below a layer in memory: after a restart it shows what the card brought, until the set has come once more, from two minutes on.',
						'card.root',
						{ label: 'Make the root writable', apply: change.makeRootWritable() }
					)
				]
			: []),
		...(new Set(times).size < times.length
			? [
					found('twice', 'note', 'The same time stands there twice', 'Once is enough.', 'delivery.times', {
						label: 'Keep one of each',
						apply: own((all) => ({ ...all, times: [...new Set(all.times)].sort() }))
					})
				]
			: [])
	];
};

export default assessDelivery satisfies Judge<DeliverySettings>;
