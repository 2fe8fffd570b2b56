<script lang="ts">
	/** What names a column, and taking it out where nothing cannot do without it. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { changeStructure } from './structure.ts'

	type Props = { table: BenchTable; column: ShownColumn; onremove: () => void }

	let { table, column, onremove }: Props = $props()

	const asked = $derived(changeStructure({ kind: 'uses', table: table.id, column: column.id }))
</script>

{#await asked}
	<p class="quiet">Looking…</p>
{:then answer}
	{#if !answer.ok}
		<p class="says-wrong" role="alert">{answer.refusal.message}</p>
	{:else}
		{@const { uses, filled } = answer.value.made}
		{@const needed = uses.filter((use) => use.needs)}
		{#if uses.length === 0}
			<p>Nothing else names it.</p>
		{:else}
			<ul>
				{#each uses as use (use.place)}
					<li>{use.place}{use.needs ? '' : ', which would go on without it'}</li>
				{/each}
			</ul>
		{/if}
		{#if needed.length > 0}
			<p class="quiet">
				It can be taken out when {needed.length === 1 ? 'this no longer needs it' : 'these no longer need it'}.
			</p>
		{:else}
			<p>
				<button class="btn danger" onclick={onremove}>Take it out</button>
				<span class="quiet">
					{filled > 0 ? `${countOf(filled, 'value')} ${filled === 1 ? 'goes' : 'go'} with it. ` : ''}It can be put back
					for thirty days.
				</span>
			</p>
		{/if}
	{/if}
{/await}

<style>
	p,
	ul {
		margin: 0.5rem 0;
	}
	ul {
		padding-left: 1.1rem;
	}
</style>
