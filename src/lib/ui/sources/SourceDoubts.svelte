<script lang="ts">
	/** What is to be settled before a file comes in, and why it cannot where it cannot. */
	import type { GivenSource } from './given-source.svelte.ts'
	import { sayDoubt } from './import-plan.ts'

	type Props = { source: GivenSource }

	let { source }: Props = $props()

	const MOST = 40
	const doubts = $derived(source.doubts)
	const damaged = $derived(source.inspection.damaged)
	const heading = $derived.by(() => {
		if (doubts.length > 0) return `${doubts.length} ${doubts.length === 1 ? 'thing' : 'things'} to settle`
		if (damaged.length > 0) return 'Damaged'
		return source.goesNowhere ? 'Nothing goes in yet' : 'Nothing to settle'
	})
	const nameOf = (column: number) => source.inspection.columns[column]?.name
</script>

<h2>{heading}</h2>
{#if damaged.length > 0}
	<p class="doubt damaged" role="alert">
		<strong>{damaged.length === 1 ? 'Row' : 'Rows'} {damaged.join(', ')}</strong>: a quote stands in the wrong place, so
		cells and rows after it may have run together. Mend the file there and give it in again.
	</p>
{/if}
{#if source.goesNowhere}
	<p class="doubt" role="status">
		No column of this file goes into <strong>{source.goesNowhere.name}</strong> yet. Choose over a column where it goes, or
		bring the file in as a new table.
	</p>
{/if}
{#each doubts.slice(0, MOST) as each (each.key)}
	<fieldset class="doubt">
		<legend class="visually-hidden">{nameOf(each.column)}</legend>
		<p><strong>{nameOf(each.column)}</strong> {sayDoubt(each.doubt)}</p>
		{#each each.options as option (option.value)}
			<label class="tick">
				<input
					type="radio"
					name={each.key}
					checked={(source.settled[each.key] ?? each.proposed) === option.value}
					onchange={() => (source.settled = { ...source.settled, [each.key]: option.value })}
				/>
				{option.words}
			</label>
		{/each}
	</fieldset>
{/each}
{#if doubts.length > MOST}<p class="quiet">and {doubts.length - MOST} more, which are read as proposed.</p>{/if}

<style>
	/* Only what waits for an answer is marked. */
	.doubt {
		border-left: 4px solid var(--marigold);
	}
	.damaged {
		background: var(--rope-wash);
		border-left-color: var(--rope);
	}
</style>
