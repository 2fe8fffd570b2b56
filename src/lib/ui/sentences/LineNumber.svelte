<script lang="ts">
	/** The number of a line in the margin of its ledger; where lines are dragged, it is what one takes hold of. */
	type Props = {
		number: number | string
		marked: boolean
		ongrab: ((event: PointerEvent) => void) | undefined
	}

	let { number, marked, ongrab }: Props = $props()
</script>

<!-- Alt with the arrows does the same. -->
<div
	class="margin"
	class:marked
	class:grab={ongrab}
	role="presentation"
	title={ongrab && 'Drag to move'}
	onpointerdown={ongrab}
>
	{number}
</div>

<style>
	.margin {
		background: var(--limewash);
		color: var(--zinc-5);
		font: 500 0.72rem var(--mono);
		padding: 0.95rem 0 0;
		text-align: center;
	}
	.grab {
		cursor: grab;
		touch-action: none;
	}
	.marked {
		background: var(--marigold);
		color: #16201b;
	}
</style>
