<script lang="ts">
	/** How many rows a list has, and what can be done with all of it: choosing several, taking it away as a file. */
	import { page } from '$app/state'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import ExportMenu from '../../grid/ExportMenu.svelte'
	import { listQuery } from '../screen-address.ts'
	import type { ListRows } from './list-rows.svelte.ts'
	import type { SeveralRows } from './several-rows.svelte.ts'

	type Props = {
		line: ShownList & { readonly id: string }
		rows: ListRows
		several: SeveralRows
		isNarrowed: boolean
		path: ScreenPath
	}

	let { line, rows, several, isNarrowed, path }: Props = $props()

	/** Counted no further. */
	const COUNTED = 1000

	const isFound = $derived(rows.find.trim() !== '')
	const count = $derived(
		isFound
			? `${rows.rows.length}${rows.next ? ' and more' : ''}`
			: line.count >= COUNTED
				? 'more than 1,000'
				: String(line.count)
	)
	const hasPresses = $derived(line.actions.some(({ opens }) => opens === undefined))
</script>

<div class="head">
	<p class="count quiet" role="status" hidden={line.waitsFor !== ''}>
		{count}
		{line.title.toLowerCase()}{isNarrowed ? ' found' : ''}
	</p>
	{#if hasPresses && rows.rows.length > 1 && !several.isOn}
		<button class="btn plain" onclick={() => (several.isOn = true)}>Choose several</button>
	{/if}
	<!-- What is looked for in words stands in no address, and so in no link to a file. -->
	{#if rows.rows.length > 0 && !line.isOfRow && !isFound && path.startsWith('/app/')}<div class="export">
			<ExportMenu from="{path}/export?line={line.id}{listQuery(page.url)}" />
		</div>{/if}
</div>

<style>
	.head {
		display: flex;
		align-items: baseline;
		gap: 0.8rem;
		padding: 0 1.2rem 0.4rem 0;
	}
	.count {
		flex: 1;
		padding: 0.4rem 1.2rem;
	}
	.btn {
		min-height: 44px;
	}
	/* Files are for a desk. */
	@media (max-width: 800px) {
		.export {
			display: none;
		}
	}
</style>
