<script lang="ts">
	/** What a chart shows, in figures. */
	import type { ShownChart } from '$lib/core/requests/shown-rows.ts'

	let { line }: { line: ShownChart } = $props()

	const hasTotal = $derived(line.series.length > 0 && line.bars.some(({ total }) => total !== ''))
	const series = $derived(line.series.length > 0 ? line.series : [{ label: line.title }])
</script>

<div class="scroll">
	<table class="ruled">
		<thead>
			<tr>
				<td></td>
				{#each series as { label }, i (i)}<th class="num" scope="col">{label}</th>{/each}
				{#if hasTotal}<th class="num" scope="col">Together</th>{/if}
			</tr>
		</thead>
		<tbody>
			{#each line.bars as bar, at (at)}
				<tr>
					<th scope="row">{bar.label}</th>
					{#each series as _each, i (i)}<td class="num">{bar.parts.find((part) => part.series === i)?.text ?? '–'}</td
						>{/each}
					{#if hasTotal}<td class="num"><strong>{bar.total || '–'}</strong></td>{/if}
				</tr>
			{/each}
		</tbody>
	</table>
</div>

<style>
	.scroll {
		overflow-x: auto;
		max-height: 24rem;
	}
	table {
		width: 100%;
		max-width: 46rem;
	}
</style>
