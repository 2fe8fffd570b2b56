<script lang="ts">
	/** What becomes of one column of a file: its name and type, or the column of a table that it goes into. */
	import { offersChoices, TYPED_TYPES } from '$lib/core/model/table.ts'
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'

	type Props = {
		column: ImportPlan['columns'][number]
		/** The table that is there already, if the rows go into one. */
		into: BenchTable | undefined
		/** Told the column of that table which it goes into; 0 leaves it out. */
		onsend: (to: number) => void
		onclose: () => void
	}

	let { column = $bindable(), into, onsend, onclose }: Props = $props()
</script>

<div class="card">
	{#if into}
		<label>
			Goes into
			<select
				class="field"
				value={column.include ? (column.to ?? 0) : 0}
				onchange={(event) => onsend(Number(event.currentTarget.value))}
			>
				<option value={0}>left out</option>
				{#each into.columns.filter((each) => each.type !== 'computed') as each (each.id)}
					<option value={each.id}>{each.name}</option>
				{/each}
			</select>
		</label>
	{:else}
		<label>Name <input class="field" bind:value={column.name} /></label>
		<label>
			Type
			<select class="field" bind:value={column.type}>
				{#each TYPED_TYPES as type (type)}<option>{type}</option>{/each}
			</select>
		</label>
		{#if offersChoices(column)}
			<label
				>Choices <textarea
					class="field"
					rows="3"
					value={(column.choices ?? []).join('\n')}
					onchange={(event) =>
						(column.choices = event.currentTarget.value
							.split('\n')
							.map((each) => each.trim())
							.filter((each) => each !== ''))}></textarea></label
			>
		{/if}
		<label class="tick"><input type="checkbox" bind:checked={column.include} /> bring it in</label>
	{/if}
	<button class="btn" onclick={onclose}>Done</button>
</div>

<style>
	.card {
		position: absolute;
		z-index: 6;
		margin-top: 0.3rem;
		width: 16rem;
		display: grid;
		gap: 0.5rem;
		padding: 0.8rem;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		white-space: normal;
		font-weight: 400;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		align-items: baseline;
		padding: 0.15rem 0;
	}
</style>
