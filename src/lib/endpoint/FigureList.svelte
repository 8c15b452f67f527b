<script lang="ts">
	import type { Figure } from '$core/link/figure';
	import type { SettingPath } from '$core/link/setting';
	import { goToField } from './field';

	interface Props {
		figures: readonly Figure[];
		/** Where a setting is changed. */
		hrefOf: (setting: SettingPath) => string;
	}
	let { figures, hrefOf }: Props = $props();
	const sure = { exact: 'exact', measured: 'measured', typical: 'typical', assumed: 'assumed' } as const;
</script>

<table class="sheet">
	<caption class="visually-hidden">Figures</caption>
	<tbody>
		{#each figures as figure, n (n)}
			<tr>
				<th scope="row">
					<details>
						<summary>{figure.label}</summary>
						<p class="soft small">
							{figure.from}
							<a href={hrefOf(figure.setting)} onclick={() => goToField(figure.setting)}>Change it</a>
						</p>
					</details>
				</th>
				<td class="mono" class:short={figure.text.length < 20}>{figure.text}</td>
				<td class="sure soft">{sure[figure.sure]}</td>
			</tr>
		{/each}
	</tbody>
</table>

<style>
	table {
		width: 100%;
		border-collapse: separate;
		border-spacing: 0;
		padding: 4px 14px;
	}
	tr + tr > * {
		border-top: 1px solid var(--rule);
	}
	th {
		min-width: 116px;
		text-align: left;
		font-weight: 400;
		padding: 6px 8px 6px 0;
		vertical-align: top;
	}
	td {
		padding: 6px 0;
		text-align: right;
		vertical-align: top;
	}
	td.short {
		white-space: nowrap;
		padding-left: 6px;
	}
	td.mono {
		font-size: var(--size-small);
	}
	.sure {
		width: 62px;
		padding-left: 8px;
		font-size: var(--size-small);
	}
	@media (max-width: 760px) {
		.short {
			white-space: normal;
		}
		th {
			min-width: 0;
		}
	}
	summary {
		cursor: pointer;
		list-style: none;
	}
	summary::after {
		content: '\00a0?';
		color: var(--ink-faint);
		font-size: var(--size-small);
	}
</style>
