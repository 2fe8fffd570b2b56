<script lang="ts" generics="L extends TreeLine">
	/** Lines one under the other, each at its level, dragged by their numbers to where they may stand. */
	import type { Snippet } from 'svelte'
	import type { Drop } from '$lib/core/app/lines/drop-line.ts'
	import { placedLines, type MayHold, type PlacedLine, type TreeLine } from '$lib/core/app/lines/tree.ts'
	import { DragLine, LEVEL } from './drag-line.svelte.ts'

	type Props = {
		lines: readonly L[]
		mayHold: MayHold
		ondrop: (id: string, drop: Drop) => void
		/** The line that has the focus now. */
		onfocus: (id: string) => void
		/** One line; `grab` takes hold of it. */
		one: Snippet<[placed: PlacedLine<L>, grab: (event: PointerEvent) => void]>
	}

	let { lines, mayHold, ondrop, onfocus, one }: Props = $props()

	const drag = new DragLine()
	let ledger: HTMLElement

	function letGo() {
		const dropped = drag.end()
		if (dropped) ondrop(dropped.id, dropped.drop)
	}
</script>

<svelte:window
	onpointermove={(event) => drag.move(event, ledger, lines, mayHold)}
	onpointerup={letGo}
	onpointercancel={() => drag.cancel()}
	onkeydown={(event) => event.key === 'Escape' && drag.cancel()}
/>

<div class="ledger" class:dragging={drag.id !== ''} bind:this={ledger}>
	{#each placedLines(lines) as placed (placed.line.id)}
		{@const { line, level, within } = placed}
		<div
			data-line={line.id}
			class:lifted={line.id === drag.id || within.some(({ id }) => id === drag.id)}
			onfocusin={() => onfocus(line.id)}
		>
			{@render one(placed, (event) => drag.begin(event, line.id, level))}
		</div>
	{/each}
	{#if drag.over}
		<div class="gap" style:top="{drag.over.top}px" style:left="{40 + drag.over.drop.level * LEVEL}px"></div>
	{/if}
</div>

<style>
	.ledger {
		position: relative;
	}
	.dragging {
		cursor: grabbing;
		user-select: none;
	}
	.lifted {
		opacity: 0.45;
	}
	/* Where the line would go, beginning at its level. */
	.gap {
		position: absolute;
		right: 0;
		height: 4px;
		margin-top: -2px;
		background: var(--marigold);
		pointer-events: none;
	}
	.gap::before {
		content: '';
		position: absolute;
		left: -5px;
		top: -4px;
		width: 12px;
		height: 12px;
		background: var(--marigold);
		rotate: 45deg;
	}
</style>
