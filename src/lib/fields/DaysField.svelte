<script lang="ts">
	import { WEEKDAYS, type Weekday } from '$core/basics/weekdays';

	interface Props {
		/** No day means every day. */
		days: readonly Weekday[];
		label: string;
		onpick: (days: Weekday[]) => void;
	}
	const { days, label, onpick }: Props = $props();
	const isOn = (day: Weekday): boolean => days.length === 0 || days.includes(day);

	/** The last day cannot be taken away: none would mean all. */
	function toggle(day: Weekday): void {
		const next = WEEKDAYS.filter((other) => (other === day ? !isOn(day) : isOn(other)));
		if (next.length) onpick(next.length === WEEKDAYS.length ? [] : next);
	}
</script>

<div class="days" role="group" aria-label={label}>
	{#each WEEKDAYS as day (day)}
		<button type="button" class:on={isOn(day)} aria-pressed={isOn(day)} onclick={() => toggle(day)}>{day}</button>
	{/each}
</div>

<style>
	.days {
		display: flex;
		margin: 8px 0 4px;
	}
	button {
		flex: 1;
		min-height: 32px;
		border: 1px solid var(--rule-strong);
		background: var(--sheet);
		color: var(--ink-soft);
		font-size: var(--size-small);
		padding: 4px 0;
		cursor: pointer;
	}
	button + button {
		border-left: 0;
	}
	button.on {
		background: var(--bottle);
		color: var(--on-bottle);
		font-weight: 700;
	}
</style>
