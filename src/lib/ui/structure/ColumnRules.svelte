<script lang="ts">
	/** What a column is called and what holds of its values. */
	import { untrack } from 'svelte'
	import { holdsFile } from '$lib/core/capture/attachment.ts'
	import { offersChoices } from '$lib/core/model/table.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { ColumnWords } from '$lib/core/requests/structure.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'

	type Props = {
		table: BenchTable
		column: ShownColumn
		onkeep: (words: ColumnWords) => void
	}

	let { table, column, onkeep }: Props = $props()

	const id = $props.id()
	const was = untrack(() => ({
		name: column.name,
		about: column.about ?? '',
		unit: column.unit ?? '',
		required: column.required ?? false,
		unique: column.unique ?? false,
		uniqueWithin: column.uniqueWithin ?? 0,
		onRemoval: column.onRemoval ?? 'keep',
		otherwise: column.otherwise ?? '',
		numbering: column.numbering ?? '',
		reverseName: column.reverseName ?? '',
		choices: column.choices?.join(', ') ?? ''
	}))
	const words = $state({ ...was })

	const computed = $derived(column.type === 'computed')
	const numeric = $derived(['whole number', 'decimal', 'money', 'computed'].includes(column.type))
	const others = $derived(table.columns.filter((each) => each.id !== column.id && each.type !== 'computed'))
	const numbered = $derived(column.type === 'text' || column.type === 'code')
	// It has just these keys.
	const keys = Object.keys(was) as (keyof typeof was)[]
	const changed = $derived(keys.filter((key) => words[key] !== was[key]))

	/** Only what was changed is sent, so that two builders at one table do not undo each other. */
	function keep(event: SubmitEvent) {
		event.preventDefault()
		const list = words.choices
			.split(',')
			.map((each) => each.trim())
			.filter((each) => each !== '')
		const keys = changed.includes('uniqueWithin') ? [...new Set([...changed, 'unique' as const])] : changed
		// Each word under its own key, which is lost on the way through a list of pairs.
		const sent = Object.fromEntries(keys.map((key) => [key, key === 'choices' ? list : words[key]])) as ColumnWords
		// Within which column goes with whether at all.
		onkeep('unique' in sent ? { ...sent, uniqueWithin: words.uniqueWithin } : sent)
	}
</script>

<form onsubmit={keep}>
	<label for="{id}-name">Name</label>
	<input id="{id}-name" class="field" required maxlength="80" bind:value={words.name} />
	<label for="{id}-about">What it means, in a sentence</label>
	<input id="{id}-about" class="field" maxlength="500" bind:value={words.about} />
	{#if numeric}
		<label for="{id}-unit">Unit</label>
		<input id="{id}-unit" class="field" maxlength="20" bind:value={words.unit} />
	{/if}
	{#if offersChoices(column)}
		<label for="{id}-choices">Choices in their order, with commas between</label>
		<input id="{id}-choices" class="field" bind:value={words.choices} />
	{/if}
	{#if column.type === 'reference'}
		<label for="{id}-reverse">What these rows are called from there</label>
		<input
			id="{id}-reverse"
			class="field"
			maxlength="80"
			bind:value={words.reverseName}
			placeholder={table.name.toLowerCase()}
		/>
	{/if}
	{#if !computed}
		<div class="ticks">
			<label><input type="checkbox" bind:checked={words.required} /> Must be filled in</label>
			{#if !holdsFile(column)}<label><input type="checkbox" bind:checked={words.unique} /> No value twice</label>{/if}
		</div>
		{#if words.unique}
			<label for="{id}-within">among</label>
			<select id="{id}-within" class="field" bind:value={words.uniqueWithin}>
				<option value={0}>all rows</option>
				{#each others as each (each.id)}<option value={each.id}>rows of one {each.name}</option>{/each}
			</select>
		{/if}
		{#if column.type === 'reference'}
			<label for="{id}-removal">When the row it points to is removed</label>
			<select id="{id}-removal" class="field" bind:value={words.onRemoval}>
				<option value="keep">that is refused</option>
				<option value="clear">this becomes blank</option>
				<option value="remove too">these rows are removed too</option>
			</select>
		{/if}
		{#if words.numbering === '' && !holdsFile(column)}
			<label for="{id}-otherwise">A new row gets, where it is left blank</label>
			<input id="{id}-otherwise" class="field formula" bind:value={words.otherwise} placeholder="TODAY()" />
		{/if}
		{#if numbered}
			<label for="{id}-numbering">Numbers each new row as</label>
			<input
				id="{id}-numbering"
				class="field mono"
				bind:value={words.numbering}
				placeholder="SR-{'{year}'}-{'{0000}'}"
			/>
		{/if}
	{/if}
	<p><button class="btn main" disabled={changed.length === 0}>Keep</button></p>
</form>

<style>
	form {
		display: grid;
		gap: 0.25rem;
		margin-top: 0.4rem;
	}
	form > label {
		font-weight: 600;
		margin-top: 0.3rem;
	}
	.ticks {
		display: flex;
		gap: 1.2rem;
		margin-top: 0.5rem;
	}
	p {
		margin: 0.6rem 0 0;
	}
</style>
