<script lang="ts">
	/** One row of a few, chosen; it stands in the address, so that a reload and a link show the same. */
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import type { ShownLine } from '$lib/core/requests/screens.ts'
	import { showCell } from '../../cells/show-cell.ts'
	import { withChosen } from '../screen-address.ts'

	let { line }: { line: Extract<ShownLine, { kind: 'choose' }> } = $props()

	const id = $props.id()

	function choose({ currentTarget: select }: Event & { currentTarget: HTMLSelectElement }) {
		void goto(withChosen(page.url, line.holds, select.value), { keepFocus: true, noScroll: true })
	}
</script>

<p>
	<label for={id}>{line.label}</label>
	<select {id} class="field" value={line.chosen ?? ''} onchange={choose}>
		<option value="">all</option>
		{#each line.options as option (option.id)}
			<option value={option.id}>{showCell(line.column, option.cell) || '(blank)'}</option>
		{/each}
	</select>
	{#if line.isCut}<span class="quiet">the first {line.options.length}</span>{/if}
</p>

<style>
	p {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 0.8rem;
		padding: 0.6rem 1.2rem;
	}
	label {
		font-weight: 600;
	}
	.field {
		width: auto;
		min-width: 12rem;
		min-height: 48px;
	}
</style>
