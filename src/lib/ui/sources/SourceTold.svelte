<script lang="ts">
	/** What was found in a file beside its rows: what is left out, what stands in the first row of a group only. */
	import type { GivenSource } from './given-source.svelte.ts'
	import { NO_ROW_WORDS, turnRow } from './import-plan.ts'

	type Props = { source: GivenSource }

	let { source }: Props = $props()

	const MOST = 20
	const inspection = $derived(source.inspection)
</script>

{#each inspection.notes as note (note)}<p class="told">{note}</p>{/each}
{#if inspection.noRows.length > 0}
	<fieldset class="told">
		<legend class="visually-hidden">Rows that are left out</legend>
		<p><strong>Left out</strong>, since they are no rows of the table. Tick to bring one in all the same.</p>
		{#each inspection.noRows.slice(0, MOST) as { row, what, text } (row)}
			<label class="tick">
				<input
					type="checkbox"
					checked={!(source.plan.leftOut ?? []).includes(row)}
					onchange={() => source.change(turnRow(source.plan, row))}
				/>
				Row {row}
				{NO_ROW_WORDS[what]}: {text}
			</label>
		{/each}
		{#if inspection.noRows.length > MOST}<p class="quiet">and {inspection.noRows.length - MOST} more.</p>{/if}
	</fieldset>
{/if}
{#each inspection.groups as from (from)}
	{@const name = inspection.columns[from]?.name}
	<fieldset class="told">
		<legend class="visually-hidden">{name}</legend>
		<p><strong>{name}</strong> stands in the first row of each group only.</p>
		<label class="tick">
			<input
				type="checkbox"
				checked={source.plan.columns[from]?.fillDown ?? false}
				onchange={(event) => source.fillDown(from, event.currentTarget.checked)}
			/>
			Fill it down: blank cells say what stands above them
		</label>
	</fieldset>
{/each}
