<script lang="ts">
	/** Any number of the builder's choices, each pressed in or out. */
	import { joinParts, partsOf } from '$lib/core/table/kinds/several-choices.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from './cell-draft.ts'

	type Props = { column: ShownColumn; draft: CellDraft; onchange: (draft: CellDraft) => void }

	let { column, draft, onchange }: Props = $props()

	const chosen = $derived(partsOf(draft.text))

	function turn(choice: string) {
		const next = (column.choices ?? []).filter((each) =>
			each === choice ? !chosen.includes(each) : chosen.includes(each)
		)
		onchange({ text: joinParts(next) })
	}
</script>

<div class="choices">
	{#each column.choices ?? [] as choice (choice)}
		<label class:on={chosen.includes(choice)}>
			<input type="checkbox" checked={chosen.includes(choice)} onchange={() => turn(choice)} />
			{choice}
		</label>
	{/each}
</div>

<style>
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
	label {
		display: inline-flex;
		align-items: center;
		gap: 0.5rem;
		min-height: 48px;
		padding: 0 0.9rem;
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		background: var(--paper);
		font-weight: 400;
	}
	label.on {
		border-color: var(--pitch);
		font-weight: 650;
		box-shadow: inset 0 0 0 1px var(--pitch);
	}
	input {
		width: 1.15rem;
		height: 1.15rem;
	}
</style>
