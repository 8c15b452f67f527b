<script lang="ts">
	import { withUnit } from '$core/basics/format';
	import { say } from '$core/engines/say';
	import type { Heard } from '$core/links/sound/heard';
	import { describeHeard } from '$core/links/sound/track';
	import { speaking } from '$core/speaking';
	import type { Moment } from './moment';

	interface Props {
		moment: Moment;
		/** What is heard first of all; its level stands in until something is. */
		first: Heard | null;
	}
	const { moment, first }: Props = $props();
	/** Music lies so far below full scale, dB. */
	const MUSIC_DB = 14;
	const sounding = $derived(moment.ear?.state === 'sound');
	const loudestDb = $derived((moment.heard ?? first)?.loudestDb ?? null);
	const big = $derived(
		!sounding ? (moment.ear?.state ?? 'off') : loudestDb === null ? 'sound' : withUnit(loudestDb - MUSIC_DB, 0, 'dB')
	);
	const small = $derived(
		!sounding
			? moment.ear
				? say(speaking, moment.ear.why)[0]
				: ''
			: loudestDb === null
				? 'no amplifier on the bench'
				: 'music at the seat, at most'
	);
</script>

<div class="meter">
	{#each ['L', 'R'] as side (side)}
		<span class="column"><i class:on={sounding}></i><small>{side}</small></span>
	{/each}
	<div>
		<p class="mono big">{big}</p>
		<p class="soft small">{small}</p>
		{#if sounding}<p class="mono small">{moment.playing}</p>
			{#if moment.heard}<p class="soft small">{describeHeard(moment.heard)}</p>{/if}{/if}
	</div>
</div>

<style>
	.meter {
		display: flex;
		gap: 10px;
		align-items: end;
		min-height: 130px;
	}
	.column {
		display: grid;
		justify-items: center;
		gap: 4px;
	}
	.column i {
		width: 16px;
		height: 104px;
		background: linear-gradient(var(--well), var(--well));
		border: 1px solid var(--rule);
	}
	.column i.on {
		background: linear-gradient(to top, var(--bottle) 74%, var(--well) 74%);
	}
	.big {
		font-size: var(--size-huge);
	}
</style>
