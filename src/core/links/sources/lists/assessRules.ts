import { minuteOfTime } from '../../../basics/calendar';
import { changing } from '../../../changes';
import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { ruleList, type Rule } from './rules';
import type { SourcesSettings } from '../settings';
import { storeOf } from '../stores/stores';

const own = changing<SourcesSettings>('sources');
const named = ({ title, id }: Rule): string => `"${title || id}"`;

/** Rules that nobody plays, whose folders nobody brings, and that are followed while people listen. */
export function assessRules({ rules, items, stores, chooseAt }: SourcesSettings, { facts }: Context): Finding[] {
	const out: Finding[] = [];
	for (const [n, rule] of rules.entries()) {
		const list = ruleList(rule);
		if (!items.some(({ location }) => location === list))
			out.push({
				id: 'sources.rule-unplayed',
				level: 'caution',
				title: `What ${named(rule)} chooses is not in the list`,
				why: 'The endpoint makes the rule\u2019s list, and the player is not told to play it.',
				setting: `sources.rules.${n}`,
				fixes: [
					{
						label: 'Play what it chooses',
						apply: own((settings) => ({
							...settings,
							items: [
								{
									id: `rule-${rule.id}`.slice(0, 60),
									location: list,
									title: rule.title,
									durationSec: null,
									extra: [],
									part: null
								},
								...settings.items
							]
						}))
					}
				]
			});
		const astray = rule.folders.filter((folder) => !storeOf(stores, `${folder}/`));
		if (astray.length)
			out.push({
				id: 'sources.rule-astray',
				level: 'caution',
				title: `${named(rule)} looks where nothing is mounted`,
				why: `${astray.join(', ')}: no share or stick of this plan lies there, so its files must have come there some other way. Until then the list stays empty.`,
				setting: `sources.rules.${n}`,
				fixes:
					astray.length < rule.folders.length
						? [
								{
									label: 'Look only where something is mounted',
									apply: own((settings) => ({
										...settings,
										rules: settings.rules.map((one) =>
											one.id === rule.id
												? { ...one, folders: one.folders.filter((folder) => !astray.includes(folder)) }
												: one
										)
									}))
								}
							]
						: []
			});
	}
	const quiet = facts.programme?.quiet.find(({ weekdays }) => weekdays.length === 0);
	const [from, until] = quiet ? [minuteOfTime(quiet.from), minuteOfTime(quiet.until)] : [0, 0];
	const isQuiet = (time: string): boolean => {
		const at = minuteOfTime(time);
		return from < until ? at >= from && at < until : at >= from || at < until;
	};
	if (rules.length && quiet && from !== until && chooseAt.some((time) => !isQuiet(time))) {
		// An hour before people hear it again.
		const best = (until + 1440 - 60) % 1440;
		const time = `${String(Math.floor(best / 60)).padStart(2, '0')}:${String(best % 60).padStart(2, '0')}`;
		out.push({
			id: 'sources.rule-loud',
			level: 'note',
			title: 'Choosing anew is heard',
			why: `When a list has changed the player begins it again, in the middle of what it plays. Within the quiet hours (${quiet.from} to ${quiet.until}) nobody notices.`,
			setting: 'sources.chooseAt',
			fixes: isQuiet(time) ? [{ label: `Choose at ${time}`, apply: own({ chooseAt: [time] }) }] : []
		});
	}
	return out;
}
