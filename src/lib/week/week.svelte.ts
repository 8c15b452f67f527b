import { wallClockMs } from '$core/formats/systemd/zone';
import type { Rulebook } from '$core/onAir/onAir';
import { startOfDayMs } from '$core/onAir/slices';
import { programmeBook } from '$core/onAir/book';
import { showWords } from '$core/links/programme/rules/whatsOn';
import type { ProgrammeRule } from '$core/onAir/when';
import type { Venue } from '$core/plan/venue';
import type { Endpoint } from '$core/plan/workshop';
import { store } from '$lib/store/workshop.svelte';
import { mondayOf } from './axis';

/** An endpoint that plays by itself, and all that decides what it plays. */
export interface Row {
	readonly endpoint: Endpoint;
	readonly book: Rulebook;
}
const rows = new WeakMap<Endpoint, { readonly venue: Venue; readonly row: Row }>();
/** Made once for an endpoint as it is: what changed elsewhere draws it no second time. */
function rowOf(endpoint: Endpoint, venue: Venue): Row {
	const known = rows.get(endpoint);
	if (known?.venue === venue) return known.row;
	const row = { endpoint, book: programmeBook(endpoint.plan.programme, venue) };
	rows.set(endpoint, { venue, row });
	return row;
}
/** How many days are in sight. */
export const ZOOMS = { day: 1, week: 7, season: 91 } as const;
export type Zoom = keyof typeof ZOOMS;
/** By so much a rule is moved at once. */
export const STEP_MIN = 15;

export const wordsOf = ({ plan }: Endpoint, show: string): string =>
	showWords(show, plan.programme, plan.sources.listTitle);
export const nameOf = (rule: ProgrammeRule): string => rule.title || rule.id;
/** Where a rule is changed by hand. */
export const placeOf = (endpoint: Endpoint, rule: string): string =>
	`/endpoint/${endpoint.id}/plan/programme#setting-programme.rules.${endpoint.plan.programme.rules.findIndex(({ id }) => id === rule)}`;

const language = (): string => navigator.language || 'en-GB';
const LONG_DAY = new Intl.DateTimeFormat(language(), {
	timeZone: 'UTC',
	day: 'numeric',
	month: 'long',
	year: 'numeric'
});
/** "27 November 2026". */
export const dayWords = (day: number): string => LONG_DAY.format(new Date(day * 86_400_000));

/** Changes the rules of an endpoint as one step. */
export const changeRules = (
	endpoint: string,
	label: string,
	edit: (rules: readonly ProgrammeRule[]) => ProgrammeRule[]
): string | null =>
	store.changePlan(endpoint, label, (plan) => ({
		...plan,
		programme: { ...plan.programme, rules: edit(plan.programme.rules) }
	}));
/** One of them. */
export const changeRule = (
	endpoint: string,
	rule: string,
	label: string,
	edit: (rule: ProgrammeRule) => ProgrammeRule
): string | null => changeRules(endpoint, label, (rules) => rules.map((one) => (one.id === rule ? edit(one) : one)));

/** What is in sight of the week of all endpoints. */
export class WeekView {
	nowMs = $state(Date.now());
	zoom = $state<Zoom>('week');
	/** The first day in sight; null: the one that holds now. */
	chosenDay = $state<number | null>(null);
	/** The rule that was pressed last. */
	chosen = $state<{ readonly endpoint: string; readonly rule: string } | null>(null);

	venue = $derived(store.workshop!.venue);
	rows = $derived(
		store.workshop!.endpoints.filter(({ plan }) => plan.programme.used).map((endpoint) => rowOf(endpoint, this.venue))
	);
	days = $derived(ZOOMS[this.zoom]);
	today = $derived(Math.floor(wallClockMs(this.venue.timeZone, this.nowMs) / 86_400_000));
	first = $derived.by(() => {
		const day = this.chosenDay ?? this.today;
		return this.zoom === 'day' ? day : mondayOf(day * 86_400_000);
	});
	spanUtc = $derived([
		startOfDayMs(this.venue.timeZone, this.first),
		startOfDayMs(this.venue.timeZone, this.first + this.days)
	] as const);

	turn(by: number): void {
		this.chosenDay = this.first + by * (this.zoom === 'season' ? 28 : this.days);
	}

	/** Names of the days or hours, and where they stand, in per cent. */
	ticks = $derived.by((): { readonly at: number; readonly words: string }[] => {
		if (this.days === 1)
			return [0, 3, 6, 9, 12, 15, 18, 21].map((hour) => ({
				at: (100 * hour) / 24,
				words: `${String(hour).padStart(2, '0')}:00`
			}));
		const isWeek = this.days === 7;
		const format = new Intl.DateTimeFormat(language(), {
			timeZone: 'UTC',
			weekday: isWeek ? 'short' : undefined,
			day: 'numeric',
			month: isWeek ? undefined : 'short'
		});
		return Array.from({ length: isWeek ? 7 : 13 }, (_, n) => {
			const day = n * (isWeek ? 1 : 7);
			return { at: (100 * day) / this.days, words: format.format(new Date((this.first + day) * 86_400_000)) };
		});
	});
}
