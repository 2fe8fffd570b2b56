<script lang="ts">
	/** The rows of a grid that are in sight, at their place in the whole. */
	import { dragOver, pressCell } from './grid-keys.ts'
	import type { GridView } from './grid-view.svelte.ts'
	import type { GridWork } from './grid-work.svelte.ts'
	import GridRow from './GridRow.svelte'

	type Props = {
		work: GridWork
		view: GridView
		/** Where each column begins, and where the last one ends. */
		lefts: readonly number[]
		width: number
	}

	let { work, view, lefts, width }: Props = $props()

	const scroll = $derived(work.scroll)
</script>

<div class="body" style:height="{scroll.pixels}px" style:width="{width}px">
	<div class="window" style:transform="translateY({scroll.offset}px)">
		{#each scroll.slots as r (r % (scroll.visible + 2))}
			<GridRow
				index={r}
				row={work.rows.at(r)}
				columns={work.columns}
				{view}
				{lefts}
				selection={work.selection}
				block={work.block}
				draft={work.selection.focus.row === r ? work.editing : undefined}
				invalid={work.wrong !== ''}
				onpress={(event, row, column) => pressCell(work, event, { row, column })}
				ondrag={(event, row, column) => dragOver(work, event, { row, column })}
				onopen={() => work.startEdit()}
				onchange={(draft, done) => {
					work.editing = draft
					if (done) void work.commit()
				}}
			/>
		{/each}
	</div>
</div>

<style>
	.body {
		position: relative;
	}
	.window {
		position: absolute;
		top: 0;
		left: 0;
	}
</style>
