import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import type { Judge } from '../../manifest';
import { assessFeed } from './feeds/assessFeed';
import { assessPage } from './pages/assessPage';
import { assessPictures } from './drawn/assessPictures';
import { assessPlace } from './assessPlace';
import { assessLetters } from './pages/letters';
import { noticeScreen } from './pages/screen';
import type { NoticesSettings } from './settings';
import { contrast, LEAST_CONTRAST, towardsContrast } from '../../standards/pageTheme';

/** All findings of the notices, worst cause first. */
export function assessNotices(settings: NoticesSettings, context: Context): Finding[] {
	const screen = noticeScreen(context);
	if (settings.pages.length === 0)
		return [
			{
				id: 'notices.no-page',
				level: 'stop',
				title: 'There is no page yet',
				why: 'The browser would have nothing to show. Begin with a template, or with an empty page.',
				setting: 'notices.pages',
				fixes: [{ label: 'Do without notices', apply: context.change.use('notices', false) }]
			}
		];
	return [
		...assessPlace(settings, context),
		...(settings.shownBy === 'pictures' ? assessPictures(settings, context) : []),
		...settings.feeds.flatMap((feed, n) => assessFeed(settings, context, feed, n)),
		...settings.pages.flatMap((page) => assessPage(settings, context, page, screen)),
		...assessLetters(settings),
		...assessTheme(settings, context),
		...assessPublic(settings)
	];
}

/** Ink and accent on what lies behind them. */
function assessTheme({ pages }: NoticesSettings, { venue }: Context): Finding[] {
	const { noticeTheme: theme } = venue;
	if (pages.length === 0) return [];
	return (['ink', 'accent'] as const).flatMap((which): Finding[] => {
		const ratio = contrast(theme[which], theme.panel);
		if (ratio >= LEAST_CONTRAST) return [];
		const better = towardsContrast(theme[which], [theme.panel], LEAST_CONTRAST);
		return [
			{
				id: `notices.contrast-${which}`,
				level: 'caution',
				title: `${which === 'ink' ? 'Text' : 'Headings'} and their ground are too alike`,
				why: `${ratio.toFixed(1)} to 1; what is read in passing wants ${LEAST_CONTRAST}. It holds for all notices of the venue.${better ? ` ${better} has it.` : ''}`,
				setting: 'notices.pages',
				fixes: []
			}
		];
	});
}

/** What is shown in public has rules of its own, and so have names of people. */
function assessPublic({ feeds }: NoticesSettings): Finding[] {
	return feeds.some(({ kind }) => kind === 'calendar')
		? [
				{
					id: 'notices.names',
					level: 'note',
					title: 'A calendar is shown to everybody who passes',
					why: 'Its titles may name people or say who is where. Let it hold only what everybody may know; the law on data protection of your country says more.',
					setting: 'notices.feeds',
					fixes: []
				}
			]
		: [];
}

export default assessNotices satisfies Judge<NoticesSettings>;
