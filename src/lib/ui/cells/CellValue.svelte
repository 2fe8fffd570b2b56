<script lang="ts">
	/** A cell as it is read: a picture is drawn, another file is offered for saving, anything else is its text. */
	import { isPicture, showSize } from '$lib/core/capture/attachment.ts'
	import { isFileCell, type WireCell } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { fileAddress } from './file-address.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'

	type Props = {
		column: ShownColumn
		cell: WireCell | undefined
		row: string
		/** What links of the page begin with. */
		base: string
	}

	let { column, cell, row, base }: Props = $props()

	const address = $derived(isFileCell(cell) ? fileAddress(base, { column: column.id, row, file: cell.file }) : '')
</script>

{#if isFileCell(cell)}
	<!-- A file is no page of the app: the browser itself opens it. -->
	<a href={address} rel="external" target="_blank" class:drawn={isPicture(cell.file.type)}>
		{#if isPicture(cell.file.type)}
			<img src={address} alt="{column.name}, opens larger" loading="lazy" class:ink={column.type !== 'photo'} />
		{:else}{cell.file.name}, {showSize(cell.file.size)}{/if}
	</a>
{:else if column.type === 'several choices' && typeof cell === 'string'}
	<span class="several"
		>{#each cell.split('; ') as part (part)}<span class="part">{part}</span>{/each}</span
	>
{:else}{showCell(column, cell) || '–'}{/if}

<style>
	.drawn {
		display: inline-block;
	}
	img {
		display: block;
		max-width: min(100%, 24rem);
		max-height: 18rem;
		min-width: 4rem;
		min-height: 3rem;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--limewash);
	}
	/* Ink is drawn in black on nothing: it needs paper under it in the dark as well. */
	img.ink {
		background: #fff;
		max-height: 8rem;
	}
	.several {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
	}
	.part {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		padding: 0 0.4rem;
	}
</style>
