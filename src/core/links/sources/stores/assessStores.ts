import { changing } from '../../../changes';
import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { placeKind } from '../../../files/mediaPlace';
import { asksPassword, isShare, isWritable, mountPoint, storeOf, storeWords, type Store } from './stores';
import { ruleOf } from '../lists/rules';
import type { SourcesSettings } from '../settings';

const own = changing<SourcesSettings>('sources');
const without = (store: Store) =>
	own((settings) => ({ ...settings, stores: settings.stores.filter(({ name }) => name !== store.name) }));

/** Shares without a network, passwords that can be read, what nobody plays. */
export function assessStores(settings: SourcesSettings, context: Context): Finding[] {
	const { stores, items, rules } = settings;
	if (stores.length === 0) return [];
	const places = [
		...items.map(({ location }) => location),
		...rules.flatMap(({ folders }) => folders.map((folder) => `${folder}/`))
	];
	const used = new Set(places.map((place) => storeOf(stores, place)?.name));
	const shares = stores.filter(isShare);
	const out: Finding[] = [];
	if (shares.length > 0 && context.facts.way === 'none')
		out.push({
			id: 'sources.share-offline',
			level: 'stop',
			title: `${storeWords(shares[0]!)} needs a network`,
			why: 'This endpoint is planned without one, so no share can be reached. Join it to the network, or bring the files on a stick or the card.',
			setting: 'network.way',
			fixes: [{ label: 'Use Ethernet', apply: context.change.useWired() }]
		});
	if (!settings.waitForNetwork && items[0] && shares.some((share) => storeOf([share], items[0]!.location)))
		out.push({
			id: 'sources.share-early',
			level: 'caution',
			title: 'The first entry lies on a share, and nothing waits for the network',
			why: 'The player begins before the share can be reached, passes over what lies there, and tries again only when the list comes round.',
			setting: 'sources.waitForNetwork',
			fixes: [{ label: 'Wait for the network', apply: own({ waitForNetwork: true }) }]
		});
	for (const store of stores) {
		if (asksPassword(store))
			out.push({
				id: `sources.share-password-${store.name}`,
				level: 'note',
				title: `The password for ${storeWords(store)} can be read off the card`,
				why: `The kernel must know it as it is typed. Make an account on the server for this endpoint alone, that may ${isWritable(store) ? 'do no more than it must' : 'only read'}, and only there.`,
				setting: 'sources.stores',
				fixes: []
			});
		if (!used.has(store.name))
			out.push({
				id: `sources.store-unused-${store.name}`,
				level: 'note',
				title: `Nothing in the list lies on ${storeWords(store)}`,
				why: `It is mounted and not played. Add files by their path, such as ${mountPoint(store)}/Film.mp4.`,
				setting: 'sources.items',
				fixes: [{ label: 'Leave it out', apply: without(store) }]
			});
	}
	for (const store of shares.filter(isWritable))
		out.push({
			id: `sources.share-written-${store.name}`,
			level: 'note',
			title: `The endpoint may write to ${storeWords(store)}, and nothing in its plan does`,
			why: 'Whoever takes the endpoint over could change or delete what lies there. What only plays needs only to read.',
			setting: 'sources.stores',
			fixes: [
				{
					label: 'Only read it',
					apply: own((known) => ({
						...known,
						stores: known.stores.map((one) => (one.name === store.name ? { ...store, access: 'read' } : one))
					}))
				}
			]
		});
	const onlyStick = stores.find(({ kind }) => kind === 'stick');
	if (onlyStick && items.length > 0 && items.every(({ location }) => storeOf([onlyStick], location)))
		out.push({
			id: 'sources.stick-alone',
			level: 'note',
			title: 'Without its stick it plays nothing',
			why: 'Everything in the list lies on the stick. One entry on the card, at the end, says that the stick is missing.',
			setting: 'sources.items',
			fixes: []
		});
	return out;
}

/** On the endpoint already, and on no share or stick of the plan. */
export const isElsewhere = ({ stores, rules }: SourcesSettings, location: string): boolean =>
	placeKind(location) === 'disk' && !storeOf(stores, location) && !ruleOf(rules, location);
