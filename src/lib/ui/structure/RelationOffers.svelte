<script lang="ts">
	/** Columns whose values name rows of another table: each can be made a reference, or left as it is. */
	import type { Relation } from '$lib/core/requests/structure.ts'
	import { changeStructure } from './structure.ts'
	import { showFigure } from '../count.ts'

	type Props = { tables: readonly number[]; onmade?: (version: number) => void }

	let { tables, onmade }: Props = $props()

	let offers = $state.raw<readonly Relation[]>([])
	let wrong = $state('')
	const keyOf = (each: Relation) => `${each.column} ${each.to}`

	async function look(of: readonly number[]) {
		const answers = await Promise.all(of.map((table) => changeStructure({ kind: 'relations', table })))
		const found = answers.flatMap((answer) => (answer.ok ? answer.value.made : []))
		// A relation between two of the tables is found from both ends.
		offers = [...new Map(found.map((each) => [keyOf(each), each])).values()]
	}

	$effect(() => void look(tables))

	async function make({ table: from, column, to }: Relation) {
		const answer = await changeStructure({ kind: 'reference', table: from, column, to, fixes: [] })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		await look(tables)
		onmade?.(answer.value.version)
	}
</script>

{#if offers.length > 0}
	<section>
		<h3>{offers.length === 1 ? 'A relation was found' : 'Relations were found'}</h3>
		{#each offers as each (keyOf(each))}
			<div class="offer">
				<p>
					<strong>{each.columnName}</strong> of {each.tableName} names rows of <strong>{each.toName}</strong>:
					{showFigure(each.found)} different {each.found === 1 ? 'value does' : 'values do'}{each.lost > 0
						? `, ${showFigure(each.lost)} ${each.lost === 1 ? 'does not and would be' : 'do not and would be'} blank`
						: ''}.
				</p>
				<button
					class="btn"
					aria-label="Make it a reference: {each.columnName} to {each.toName}"
					onclick={() => make(each)}>Make it a reference</button
				>
			</div>
		{/each}
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	</section>
{/if}

<style>
	section {
		display: grid;
		gap: 0.5rem;
	}
	.offer {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 0.8rem;
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-left: 4px solid var(--marigold);
		border-radius: 3px;
		padding: 0.5rem 0.8rem;
	}
	.offer p {
		flex: 1 1 14rem;
	}
</style>
