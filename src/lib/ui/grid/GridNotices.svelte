<script lang="ts">
	/** Between a grid and its tools: what clashes, what does not fit, what is wrong, what is under way, what was done. */
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { sayUnsorted } from '../cells/unsorted.ts'
	import ClashNotice from './ClashNotice.svelte'
	import type { GridWork } from './grid-work.svelte.ts'
	import MisfitNotice from './MisfitNotice.svelte'

	type Props = { table: BenchTable; work: GridWork }

	let { table, work }: Props = $props()

	const { rows, clash, misfits } = $derived(work)
	const wrong = $derived(work.wrong || rows.wrong)
	const clashing = $derived(clash && table.columns.find((column) => column.id === clash.conflict.column))
</script>

{#if clash}
	{#if clashing}
		<ClashNotice
			column={clashing}
			conflict={clash.conflict}
			typed={work.editing?.text ?? ''}
			ontheirs={() => work.takeTheirs()}
			onmine={() => work.putMine()}
		/>
	{/if}
{:else if misfits}
	<MisfitNotice
		misfits={misfits.shown}
		total={misfits.total}
		onnone={() => (work.misfits = undefined)}
		onpartly={() => void misfits.partly()}
	/>
{:else if wrong}
	<p class="notice says-wrong" role="alert">{wrong}</p>
{:else if rows.unsorted !== undefined}
	<p class="notice" role="status">{sayUnsorted(table.columns, rows.unsorted)}</p>
{:else if rows.slow}
	<p class="said" role="status">
		Looking through the rows… <button class="btn plain" onclick={() => rows.stop()}>Stop</button>
	</p>
{:else if work.said}
	<p class="said" role="status">{work.said}</p>
{/if}

<style>
	.notice {
		background: var(--rope-wash);
		padding: 0.5rem 1.2rem;
	}
	.said {
		padding: 0.3rem 1.2rem;
		color: var(--zinc-7);
	}
</style>
