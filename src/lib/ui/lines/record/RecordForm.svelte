<script lang="ts">
	/** The cells of one row that may be changed; both values stand where somebody else was faster. */
	import CellField from '../../cells/CellField.svelte'
	import { draftOf } from '../../cells/cell-draft.ts'
	import { optionsAt } from '../../cells/options.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import type { RecordEdit } from './record-edit.svelte.ts'

	type Props = {
		edit: RecordEdit
		base: string
		onsave: () => void
		/** Where there is something to go back to. */
		onleave?: () => void
		/** What its button says. */
		sends?: string
	}

	let { edit, base, onsave, onleave, sends = 'Save' }: Props = $props()

	function onsubmit(event: SubmitEvent) {
		event.preventDefault()
		onsave()
	}
</script>

<form {onsubmit} novalidate>
	{#each edit.columns as column (column.id)}
		{@const conflict = edit.conflictIn(column)}
		<CellField
			{column}
			draft={edit.draft(column)}
			message={edit.wrong[column.id]}
			there={edit.pictureOf(column)}
			options={optionsAt(base)}
			onchange={(draft) => edit.put(column, draft)}
		/>
		{#if conflict}
			<p class="conflict">
				Now there: <strong>{showCell(column, conflict.theirs) || 'blank'}</strong>
				<button type="button" class="btn" onclick={() => edit.put(column, draftOf(column, conflict.theirs))}
					>Take theirs</button
				>
			</p>
		{/if}
	{/each}
	<div class="end">
		<button class="btn main">{sends}</button>
		{#if onleave}<button type="button" class="btn" onclick={onleave}>Leave it as it was</button>{/if}
	</div>
</form>

<style>
	form {
		display: grid;
		gap: 1rem;
		max-width: 36rem;
	}
	.conflict {
		background: var(--rope-wash);
		color: var(--rope);
		padding: 0.5rem 0.8rem;
		display: flex;
		align-items: center;
		gap: 0.8rem;
	}
	.end {
		display: flex;
		gap: 0.6rem;
	}
	.end .btn {
		min-height: 48px;
		padding: 0.4rem 1.2rem;
	}
	@media (max-width: 640px) {
		.end .btn {
			flex: 1;
		}
	}
</style>
