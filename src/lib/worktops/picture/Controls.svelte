<script lang="ts">
	import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
	import {
		ACTIONS,
		CONTROL_WAYS,
		USUAL_KEYS,
		type Action,
		type Control,
		type ControlWay
	} from '$core/links/picture/controls/controls';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import PhonePassword from './PhonePassword.svelte';

	const view = useEndpoint();
	const controls = $derived(view.plan.picture.controls);
	/** What is not allowed yet, by place. */
	let drafts = $state<Record<string, string>>({});
	let error = $state('');
	const actions = Object.entries(ACTIONS) as [Action, { words: string }][];
	const ways = Object.entries(CONTROL_WAYS) as [ControlWay, string][];

	function replace(index: number, part: Partial<Control>): void {
		const key = Object.keys(part)[0]!;
		error =
			view.set(
				'picture.controls',
				controls.map((one, n) => (n === index ? { ...one, ...part } : one))
			) ?? '';
		const name = `${index}${key}`;
		if (error) drafts[name] = String(Object.values(part)[0]);
		else delete drafts[name];
	}
	function add(): void {
		const free = actions.find(([id]) => !controls.some(({ action }) => action === id))?.[0] ?? 'next';
		view.set('picture.controls', [...controls, { action: free, by: 'keyboard', key: USUAL_KEYS[free], scancode: '' }]);
	}
	/** A page has buttons and no keys. */
	const wayTo = ({ action, key }: Control, by: ControlWay): Partial<Control> => ({
		by,
		key: by === 'phone' ? '' : key || USUAL_KEYS[action],
		...(by === 'remote' ? {} : { scancode: '' })
	});
</script>

<div id="setting-picture.controls" class="list">
	{#each controls as control, n (n)}
		<div class="one" id="setting-picture.controls.{n}">
			<div class="two">
				<Select
					labelText="Asks for"
					selected={control.action}
					on:update={(event) => event.detail !== control.action && replace(n, { action: event.detail as Action })}
				>
					{#each actions as [id, { words }] (id)}<SelectItem value={id} text={words} />{/each}
				</Select>
				<Select
					labelText="by"
					selected={control.by}
					on:update={(event) => event.detail !== control.by && replace(n, wayTo(control, event.detail as ControlWay))}
				>
					{#each ways as [id, words] (id)}<SelectItem value={id} text={words} />{/each}
				</Select>
				{#if control.by !== 'phone'}
					<TextInput
						labelText="Key"
						value={drafts[`${n}key`] ?? control.key}
						invalid={`${n}key` in drafts}
						on:input={(event) => replace(n, { key: String(event.detail ?? '') })}
					/>
				{/if}
				{#if control.by === 'remote'}
					<TextInput
						labelText="Code"
						placeholder="0x10"
						value={drafts[`${n}scancode`] ?? control.scancode}
						invalid={`${n}scancode` in drafts}
						on:input={(event) => replace(n, { scancode: String(event.detail ?? '') })}
					/>
				{/if}
			</div>
			<Button
				kind="ghost"
				size="small"
				on:click={() =>
					view.set(
						'picture.controls',
						controls.filter((_, k) => k !== n)
					)}>Take out</Button
			>
		</div>
	{:else}
		<p class="soft">Nobody drives it: it plays by itself.</p>
	{/each}
	{#if controls.some(({ by }) => by === 'phone')}
		<PhonePassword />
	{/if}
	{#if error}<p class="bad" role="alert">{error}</p>{/if}
	<Button kind="tertiary" size="small" disabled={controls.length >= 24} on:click={add}>Add a key</Button>
</div>

<style>
	.list {
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	.one {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 8px 10px;
		background: var(--sheet);
		width: 100%;
	}
</style>
