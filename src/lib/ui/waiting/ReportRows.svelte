<script lang="ts">
	/** Rows that came with a notice: as they were when it was written. */
	import { underReport, type ReportTable } from '$lib/core/requests/report.ts'

	type Props = { report: ReportTable; inFile: boolean }

	let { report, inFile }: Props = $props()

	/** A date, a code or a few words stay on one line; what does not fit is moved sideways. */
	const SHORT = 16
	const under = $derived(underReport(report, inFile))
</script>

<!-- What is wider or longer than its place is moved by keys too. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="rows" role="group" aria-label="{report.title}, as reported" tabindex="0">
	<table>
		<thead>
			<tr>
				{#each report.heads as { name, isNumber }, i (i)}<th class:number={isNumber} scope="col">{name}</th>{/each}
			</tr>
		</thead>
		<tbody>
			{#each report.rows as cells, i (i)}
				<tr>
					{#each cells as cell, at (at)}<td class:number={report.heads[at]?.isNumber} class:short={cell.length <= SHORT}
							>{cell}</td
						>{/each}
				</tr>
			{/each}
		</tbody>
		{#if report.foot.length > 0}
			<tfoot>
				<tr>
					{#each report.foot as cell, at (at)}<td class:number={report.heads[at]?.isNumber}>{cell}</td>{/each}
				</tr>
			</tfoot>
		{/if}
	</table>
	{#if under}<p class="quiet">{under}</p>{/if}
</div>

<style>
	.rows {
		overflow: auto;
		max-height: 24rem;
		padding: 0.1rem 0.2rem;
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
	table {
		border-collapse: collapse;
		width: 100%;
	}
	th,
	td {
		padding: 0.35rem 0.8rem 0.35rem 0.5rem;
		text-align: left;
		vertical-align: top;
		border-bottom: 1px solid var(--zinc-3);
	}
	th {
		position: sticky;
		top: 0;
		background: var(--paper);
		font: 650 0.92rem var(--head);
		white-space: nowrap;
	}
	tbody tr:last-child td {
		border-bottom: 0;
	}
	tfoot td {
		border-top: 2px solid var(--pitch);
		border-bottom: 0;
		font-weight: 650;
	}
	.short {
		white-space: nowrap;
	}
	.number {
		text-align: right;
		font-variant-numeric: tabular-nums;
	}
	p {
		padding: 0.4rem 0.5rem;
	}
</style>
