<script lang="ts">
	/** Two people changed one cell: both values, and the choice between them. */
	import type { Conflict } from '$lib/core/query/change.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'

	type Props = { column: ShownColumn; conflict: Conflict; typed: string; ontheirs: () => void; onmine: () => void }

	let { column, conflict, typed, ontheirs, onmine }: Props = $props()
</script>

<div role="alert">
	<p>
		Somebody else has changed <strong>{column.name}</strong> meanwhile. Now there:
		<strong>{showCell(column, conflict.theirs) || 'blank'}</strong>. You typed:
		<strong>{typed}</strong>.
	</p>
	<button class="btn" onclick={ontheirs}>Keep theirs</button>
	<button class="btn main" onclick={onmine}>Put mine in</button>
</div>

<style>
	div {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		background: var(--rope-wash);
		padding: 0.5rem 1.2rem;
	}
</style>
