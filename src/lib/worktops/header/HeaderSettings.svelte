<script lang="ts">
	import { pinOf } from '$core/links/header/occupancy';
	import { usersOf } from '$core/links/header/users';
	import { describeHeaderUse } from '$core/parts/describe';
	import { PWM_LINES } from '$core/standards/header40Table';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField } from '$lib/fields';

	const view = useEndpoint();
	const users = $derived(usersOf(view.plan.header, view.context, view.claims));
	const lines = (pwm: boolean): { value: string; text: string }[] =>
		Array.from({ length: 26 }, (_, n) => n + 2)
			.filter((line) => !pwm || PWM_LINES.some((known) => known.line === line))
			.map((line) => ({ value: String(line), text: `GPIO ${line}, pin ${pinOf(line)}` }));
	function wire(id: string, n: number, to: number): void {
		const user = users.find((known) => known.id === id)!;
		const wired = user.use.movable.map((movable, k) => (k === n ? to : (user.lines[k] ?? movable.suggested)));
		view.edit(`wire to GPIO ${to}`, (plan) => ({
			...plan,
			header: { ...plan.header, lines: { ...plan.header.lines, [id]: wired } }
		}));
	}
</script>

{#each users as user, n (n)}
	<section>
		<h3><span class="tag mono">{n + 1}</span> {user.name}</h3>
		<p class="soft small">{describeHeaderUse(user.use)}</p>
		{#each user.use.movable as { what, suggested, pwm }, k (k)}
			<ChoiceField
				path={`header.lines.${user.id}.${k}`}
				label={`Where its ${what} goes`}
				value={String(user.lines[k] ?? suggested)}
				options={lines(pwm)}
				onpick={(value) => wire(user.id, k, Number(value))}
			/>
		{/each}
	</section>
{:else}
	<p class="soft">
		Nothing sits on the header. Converters, tuners, fans, buttons and clocks that do are chosen among the <a
			href={`/endpoint/${view.endpoint!.id}/plan/parts`}>parts</a
		>.
	</p>
{/each}

<style>
	section {
		border-bottom: 1px solid var(--rule);
		padding-bottom: 10px;
		display: grid;
		gap: 6px;
	}
	h3 {
		display: flex;
		gap: 7px;
		align-items: start;
		line-height: 1.35;
	}
	.tag {
		background: var(--bottle);
		color: var(--on-bottle);
		border-radius: 3px;
		min-width: 18px;
		text-align: center;
		font-size: var(--size-small);
		line-height: 18px;
	}
</style>
