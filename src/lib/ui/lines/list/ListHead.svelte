<script lang="ts">
	/** How many rows a list has, and what can be done with all of it: choosing several, taking it away as a file. */
	import { page } from '$app/state'
	import { oneOf } from '$lib/core/app/name-things.ts'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import ExportMenu from '../../grid/ExportMenu.svelte'
	import { hasWords, listQuery } from '../screen-address.ts'
	import { useShownNow } from '../shown-now.svelte.ts'
	import type { ListRows } from './list-rows.svelte.ts'
	import type { SeveralRows } from './several-rows.svelte.ts'

	type Props = {
		line: ShownList & { readonly id: string }
		rows: ListRows
		several: SeveralRows
		isNarrowed: boolean
		path: ScreenPath
		/** How many rows others have changed since they were last looked at. */
		changed: number
	}

	let { line, rows, several, isNarrowed, path, changed }: Props = $props()

	/** Counted no further. */
	const COUNTED = 1000

	const isFound = $derived(rows.find.trim() !== '')
	const isFile = $derived(!isFound && !hasWords(page.url) && path.startsWith('/app/'))
	const count = $derived(
		isFound
			? `${rows.rows.length}${rows.next ? ' and more' : ''}`
			: line.count >= COUNTED
				? 'more than 1,000'
				: String(line.count)
	)
	const says = $derived(
		`${count} ${count === '1' ? oneOf(line.title) : line.title.toLowerCase()}${isNarrowed ? ' found' : ''}`
	)
	const hasPresses = $derived(line.actions.some(({ opens, gives }) => opens === undefined && gives === undefined))
	const now = useShownNow()
</script>

<div class="head">
	<p class="count quiet" role="status" hidden={line.waitsFor !== ''}>
		<span>{says}</span>
		{#if line.asOf}<strong>as it was on {line.asOf}</strong>{/if}
		{#if changed > 0}<button class="btn plain" onclick={() => now.looked(line.id)}
				>{changed} changed by others · seen</button
			>{/if}
	</p>
	{#if hasPresses && rows.rows.length > 1 && !several.isOn}
		<button class="btn plain" onclick={() => (several.isOn = true)}>Choose several</button>
	{/if}
	<!-- What is looked for in words stands in no address, and so in no link to a file. -->
	{#if rows.rows.length > 0 && !line.isOfRow && isFile && !line.asOf}<div class="export">
			<ExportMenu from="{path}/export?line={line.id}{listQuery(page.url)}" />
		</div>{/if}
</div>

<style>
	.head {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		justify-content: flex-end;
		gap: 0 0.8rem;
		padding: 0 1.2rem 0.4rem 0;
	}
	.count {
		flex: 1;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0 0.6rem;
		min-height: 48px;
		padding: 0 1.2rem;
	}
	.count[hidden] {
		display: none;
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
