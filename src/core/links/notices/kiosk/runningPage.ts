import type { Machine, Process } from '../../../engines/machine';
import { BY_HAND_PATH, readByHand } from '../../../files/byHand';
import { itemAt } from '../../../onAir/item';
import type { Item, OnNow } from '../../../onAir/item';
import type { Show } from '../pages/show';
import { worldOf, type Fetched } from '../pages/world';
import type { OpenedPage, Tell } from './openedPage';
import { ZoneJudge } from './zoneJudge';

/** As often as the page itself looks for a wish by phone, and at its feeds. */
const ORDERS_MS = 2000;
const LOOK_MS = 20_000;
/** It says at least so often that it is alive. */
const ALIVE_MS = 60_000;
/** By then whatever is fetched has come once. */
const FETCHED_BY_MS = 300_000;
/** Here its zones are judged so often, once all has been shown. */
const FEEDS_MS = 600_000;
/** After the first day with it: what grows old by the hour is told to the hour. */
const LATER_MS = 3_600_000;
const FIRST_DAY_MS = 86_400_000;

/** Pages that run, and what makes each crash. */
export const crashes = new WeakMap<Machine, Set<() => void>>();

type Screen = Exclude<ReturnType<NonNullable<Machine['offers']['openScreen']>>, string>;
type Shown = Show['lists'][string][number];

interface Surroundings {
	readonly machine: Machine;
	readonly process: Process;
	readonly tell: Tell;
	readonly page: OpenedPage;
	readonly screen: Screen;
	readonly mayReadFeeds: boolean;
}

/** What is on at one look: by the rules, or by hand. */
interface OnAir {
	readonly on: OnNow<Shown>;
	readonly item: Pick<Item, 'id' | 'title' | 'kind'> | null;
	readonly why: string;
	/** Until when somebody has asked for it by hand; null: the rules decide. */
	readonly byHandUntilMs: number | null;
	/** Changes when another rule, list or person is the reason. */
	readonly reason: string;
}

/** What the page's own script does, by heart: what is on by its rules, and what each zone shows. */
export class RunningPage {
	readonly #show: Show;
	readonly #begunMs: number;
	readonly #zones: ZoneJudge;
	#fetched: ReadonlyMap<string, Fetched> = new Map();
	readonly #neverCame = new Set<string>();
	#lookedMs = -Infinity;
	#crashed = false;
	#reason = '';
	#saidOf: string | null = null;
	#saidUtcMs = 0;
	/** What has been shown since the list last came on: once round, nothing new comes before it changes. */
	#shown = new Set<string>();
	/** The next look; an earlier one takes its place. */
	#turn = 0;

	constructor(readonly around: Surroundings) {
		const { machine, page, tell } = around;
		this.#show = page.show;
		this.#begunMs = machine.clock.nowMs;
		this.#zones = new ZoneJudge(machine, tell, page);
	}

	begin(): void {
		const { machine, tell } = this.around;
		if (this.#show.fadeMs > 0) machine.unknown('how one page fades into the next');
		const kinds = Object.values(this.#show.lists).flatMap((list) => list.map(({ kind }) => kind));
		if (kinds.some((kind) => kind === 'film' || kind === 'sound')) machine.unknown('the sound of what a page plays');
		else machine.emit('player-silent', tell.said('silent'));
		this.#mayCrash();
		this.#hearWishes();
		this.#tick();
	}

	#mayCrash(): void {
		const { machine, process, tell, screen } = this.around;
		const running = crashes.get(machine) ?? new Set();
		crashes.set(machine, running);
		const crash = (): void => {
			this.#crashed = true;
			running.delete(crash);
			tell.event('page-crashes', 'bad');
			screen.blank();
			machine.emit('player-fails', tell.said('crashed'));
		};
		running.add(crash);
		process.onKill(() => void running.delete(crash));
	}

	#hearWishes(): void {
		const { machine, process } = this.around;
		let wish = machine.disk.read(BY_HAND_PATH);
		const { boot } = machine;
		process.onKill(
			machine.world.onChange(() => {
				// Nobody stops it when the power goes.
				if (machine.boot !== boot) return;
				const text = machine.disk.read(BY_HAND_PATH);
				if (text === wish) return;
				wish = text;
				this.#later(ORDERS_MS);
			})
		);
	}

	#later(ms: number): void {
		const mine = ++this.#turn;
		this.around.process.after(ms, () => {
			if (mine === this.#turn) this.#tick();
		});
	}

	#lookAtFeeds(): void {
		const { machine, tell, mayReadFeeds } = this.around;
		const fetched = new Map<string, Fetched>();
		for (const { id, path, title } of this.#show.feeds) {
			const text = path && mayReadFeeds ? machine.disk.read(path) : null;
			const when = Number(path ? machine.disk.read(`${path}.when`) : NaN);
			if (text !== null && when > 0) fetched.set(id, { text, fetchedUtcMs: when * 1000 });
			else if (path && machine.clock.nowMs - this.#begunMs > FETCHED_BY_MS && !this.#neverCame.has(id)) {
				this.#neverCame.add(id);
				tell.event('feed-not-there', 'bad', { title, path });
			}
		}
		this.#fetched = fetched;
	}

	#tick(): void {
		const { machine } = this.around;
		if (this.#crashed) return;
		const nowMs = machine.believedUtcMs;
		if (machine.clock.nowMs - this.#lookedMs >= LOOK_MS) {
			this.#lookedMs = machine.clock.nowMs;
			this.#lookAtFeeds();
		}
		const now = this.#onAir(nowMs);
		this.#tellReason(now);
		this.#put(now);
		if (now.item) this.#shown.add(now.item.id);
		this.#sayAlive(now.item?.id ?? '', nowMs);
		const list = this.#show.lists[now.on.show] ?? [];
		const isRound = list.every(({ id }) => this.#shown.has(id));
		const world = worldOf(this.#show, nowMs, this.#fetched);
		for (const { id, kind } of list)
			if (kind === 'page' && (isRound || id === now.item?.id)) this.#zones.judge(id, world);
		this.#later(this.#nextMs(now, isRound, nowMs));
	}

	#onAir(nowMs: number): OnAir {
		const { machine, mayReadFeeds } = this.around;
		const show = this.#show;
		const order = show.byHand && mayReadFeeds ? readByHand(machine.disk.read(BY_HAND_PATH)) : null;
		const byHand = order && nowMs < order.untilUtcMs ? show.pages.find(({ id }) => id === order.id) : undefined;
		const on = itemAt(show.book, (list) => show.lists[list] ?? [], nowMs);
		const line = byHand ? null : on.line;
		return {
			on,
			item: byHand ? { id: byHand.id, title: byHand.title || byHand.id, kind: 'page' } : on.item,
			why: line?.title ?? '',
			byHandUntilMs: byHand ? order!.untilUtcMs : null,
			reason: byHand ? `by hand ${byHand.id}` : `${on.show} ${line?.rule ?? ''}`
		};
	}

	#tellReason({ reason, byHandUntilMs, item, why }: OnAir): void {
		const { tell } = this.around;
		if (reason === this.#reason) return;
		this.#reason = reason;
		this.#shown = new Set();
		if (byHandUntilMs !== null) tell.event('by-hand', 'info', { title: item!.title });
		else if (item) tell.event('on-air', 'info', { title: item.title, why });
		else tell.event('rests', 'info', { why });
	}

	/** Puts it on the screen. */
	#put({ item, why }: OnAir): void {
		const { machine, tell, screen } = this.around;
		const { widthPx, heightPx, edges } = this.#show.screen;
		const shape = {
			codec: 'page',
			widthPx: widthPx - edges.left - edges.right,
			heightPx: heightPx - edges.top - edges.bottom,
			framesPerSec: null,
			bitDepth: 8
		};
		if (!item) {
			screen.blank();
			machine.emit('player-rests', tell.said('rests', { why }));
		} else if (item.kind === 'page' && !this.#show.pages.some(({ id }) => id === item.id)) {
			tell.event('page-gone', 'bad', { title: item.title });
			screen.blank();
		} else if (item.kind === 'page') screen.show({ title: item.title, id: `page:${item.id}` }, shape, false);
		else if (!this.#zones.isMissing(item.id, item.title) && item.kind !== 'sound')
			screen.show(
				{ title: item.title, id: this.#zones.pathOn(item.id) },
				{ ...shape, codec: item.kind, framesPerSec: item.kind === 'film' ? 25 : null },
				false
			);
	}

	/** As the page says it: each change, and otherwise once a minute that it is alive. */
	#sayAlive(what: string, nowMs: number): void {
		const { machine, process } = this.around;
		if (what === this.#saidOf && nowMs - this.#saidUtcMs <= ALIVE_MS) return;
		const word = what === this.#saidOf ? 'alive' : 'shows';
		[this.#saidOf, this.#saidUtcMs] = [what, nowMs];
		machine.log(process.unit, `yphos-page ${word} ${new Date(nowMs).toISOString()}`);
	}

	#nextMs({ on, byHandUntilMs }: OnAir, isRound: boolean, nowMs: number): number {
		const { clock } = this.around.machine;
		const ends = byHandUntilMs ?? on.endsUtcMs;
		const next =
			isRound || byHandUntilMs !== null
				? Math.min(ends - nowMs, clock.nowMs - this.#begunMs < FIRST_DAY_MS ? FEEDS_MS : LATER_MS)
				: on.untilUtcMs - nowMs;
		// A clock that is set meanwhile is noticed within a minute of the beginning.
		return Math.max(250, Math.min(next, clock.nowMs < 600_000 ? 60_000 : Infinity));
	}
}
