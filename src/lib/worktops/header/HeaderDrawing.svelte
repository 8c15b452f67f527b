<script lang="ts">
	import { computeOccupancy, type Taking } from '$core/links/header/occupancy';
	import { hasHeader, liftsOf, usersOf } from '$core/links/header/users';
	import { HEADER_PINS, type HeaderPin } from '$core/standards/header40Table';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const users = $derived(usersOf(view.plan.header, view.context, view.claims));
	const occupancy = $derived(computeOccupancy(users, liftsOf(view.context)));
	const clashing = $derived(
		new Set(
			occupancy.conflicts.flatMap((conflict) =>
				conflict.kind === 'line' ? conflict.lines : conflict.kind === 'no-pwm' ? [conflict.line] : []
			)
		)
	);
	const there = $derived(hasHeader(view.context) !== false);
	const ROW = 23;
	const takers = (pin: HeaderPin): Taking[] => occupancy.takings.filter(({ line }) => line === pin.gpio);
	const feeds5V = $derived(users.flatMap((user, n) => (user.use.milliamperes5V > 0 ? [n + 1] : [])));
	const feeds3V3 = $derived(users.flatMap((user, n) => (user.use.milliamperes3V3 > 0 ? [n + 1] : [])));

	/** What stands beside a pin: what it is, and who takes it, by number. */
	function words(pin: HeaderPin): { what: string; tags: number[]; clash: boolean } {
		if (pin.kind === '5 V') return { what: '5 V', tags: feeds5V, clash: false };
		if (pin.kind === '3.3 V') return { what: '3.3 V', tags: feeds3V3, clash: false };
		if (pin.kind === 'ground') return { what: 'ground', tags: [], clash: false };
		const by = takers(pin);
		// Two words for one pin find no room: the finding beside says both.
		const what = clashing.has(pin.gpio!) ? '' : (by[0]?.as ?? '');
		return {
			what: `GPIO ${pin.gpio}${what ? ` · ${what}` : ''}`,
			tags: [...new Set(by.map((taking) => users.indexOf(taking.by) + 1))],
			clash: clashing.has(pin.gpio!)
		};
	}
	const rows = Array.from({ length: 20 }, (_, n) => [HEADER_PINS[2 * n]!, HEADER_PINS[2 * n + 1]!] as const);
</script>

{#if there}
	<figure class="sheet">
		<figcaption>
			<b>The header, pin 1 at the top left</b>
			<ul>
				<li><svg viewBox="0 0 16 16" width="14" height="14"><circle cx="8" cy="8" r="6" class="free" /></svg> free</li>
				<li>
					<svg viewBox="0 0 16 16" width="14" height="14"><circle cx="8" cy="8" r="6" class="taken" /></svg> taken
				</li>
				<li>
					<svg viewBox="0 0 16 16" width="14" height="14"
						><circle cx="8" cy="8" r="6" class="clash" /><path d="M5 5 L11 11 M11 5 L5 11" class="cross" /></svg
					>
					wanted twice
				</li>
				<li>
					<svg viewBox="0 0 16 16" width="14" height="14"><rect x="2" y="2" width="12" height="12" class="volts" /></svg
					> power
				</li>
				<li>
					<svg viewBox="0 0 16 16" width="14" height="14"><path d="M2 8 H14 M5 11 H11" class="earth" /></svg> ground
				</li>
			</ul>
		</figcaption>
		<svg
			viewBox="90 0 480 474"
			role="img"
			aria-label={`${occupancy.takings.length} lines taken, ${clashing.size} wanted twice, ${occupancy.freeLines.length} free`}
		>
			<rect x="298" y="4" width="64" height="466" rx="3" class="body" />
			{#each rows as pair, row (row)}
				{@const y = 18 + row * ROW}
				{#each pair as pin, side (pin.pin)}
					{@const said = words(pin)}
					{@const x = side ? 346 : 314}
					{#if pin.kind === 'gpio'}
						<circle cx={x} cy={y} r="8" class={said.clash ? 'clash' : said.tags.length ? 'taken' : 'free'} />
						{#if said.clash}<path class="cross" d={`M${x - 4} ${y - 4} l8 8 m0 -8 l-8 8`} />{/if}
					{:else if pin.kind === 'ground'}
						<path class="earth" d={`M${x - 7} ${y} h14 M${x - 4} ${y + 4} h8`} />
					{:else}
						<rect x={x - 7} y={y - 7} width="14" height="14" class="volts" />
					{/if}
					<text x={side ? 372 : 288} {y} dy="4" class="pin mono" class:left={!side}>{pin.pin}</text>
					<text
						x={side ? 396 : 264}
						{y}
						dy="4"
						class:left={!side}
						class:faint={said.tags.length === 0}
						class:bad={said.clash}
						>{side
							? `${said.what}${said.tags.length ? `  ${said.tags.map((n) => `[${n}]`).join(' ')}` : ''}`
							: `${said.tags.length ? `${said.tags.map((n) => `[${n}]`).join(' ')}  ` : ''}${said.what}`}</text
					>
				{/each}
			{/each}
		</svg>
		{#if users.length}<p class="soft small">Numbers in brackets are the parts on the left.</p>{/if}
	</figure>
{/if}

<style>
	figcaption {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 4px 16px;
	}
	ul {
		list-style: none;
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
		margin: 0;
		padding: 0;
		font-size: var(--size-small);
		color: var(--ink-soft);
	}
	li svg {
		vertical-align: -2px;
	}
	figure > svg {
		display: block;
		width: 100%;
		max-height: 500px;
		margin-top: 8px;
	}
	.body {
		fill: var(--well);
		stroke: var(--rule-strong);
	}
	.free {
		fill: var(--sheet);
		stroke: var(--rule-strong);
		stroke-width: 1.5;
	}
	.taken {
		fill: var(--bottle);
	}
	.clash {
		fill: var(--brick);
	}
	.cross {
		stroke: var(--sheet);
		stroke-width: 2;
	}
	.volts {
		fill: var(--amber);
	}
	.earth {
		stroke: var(--ink);
		stroke-width: 2;
	}
	text {
		fill: var(--ink);
		font-size: var(--size-small);
	}
	text.left {
		text-anchor: end;
	}
	text.pin {
		fill: var(--ink-soft);
		font-size: var(--size-small);
	}
	text.faint {
		fill: var(--ink-faint);
	}
	text.bad {
		fill: var(--brick);
		font-weight: 700;
	}
</style>
