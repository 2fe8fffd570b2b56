<script lang="ts">
	import { cellKey, isFileCell, type WireRow } from '$lib/core/query/wire.ts'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import { isNumeric } from '../../cells/controls.ts'
	import { fileAddress } from '../../cells/file-address.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { page } from '$app/state'
	import { addressOf } from './row-address.ts'
	import Changed from './Changed.svelte'
	import Mark from './Mark.svelte'
	import RowActions from './RowActions.svelte'
	import RowTick from './RowTick.svelte'
	import { useShownNow } from '../shown-now.svelte.ts'
	import type { SeveralRows } from './several-rows.svelte.ts'
	import { dueStamp, nameOf, smallText, type RowLook, type Stamp } from './row-look.ts'

	type Props = {
		line: ShownList & { readonly id: string }
		look: RowLook
		row: WireRow
		path: ScreenPath
		base: string
		from: string
		isSelected: boolean
		several: SeveralRows
		/** Whether somebody else has changed it since it was last looked at. */
		isChanged: boolean
		/** Called with a row that is chosen among several, or no longer. */
		onchoose: (event: Event, id: string) => void
	}

	let { line, look, row, path, base, from, isSelected, several, isChanged, onchoose }: Props = $props()

	const id = $props.id()
	const now = useShownNow()
	const mark = $derived(line.marks[row.flags?.[0] ?? -1])
	const due = $derived<Stamp | undefined>(dueStamp(look, row))
	const stamp = $derived<Stamp | undefined>(mark ? { text: mark.word, tone: mark.tone } : due)
	const name = $derived(nameOf(look, row))
	const picture = $derived.by(() => {
		const { photo } = look
		const cell = photo && row.cells[cellKey(photo.id)]
		return photo && isFileCell(cell) ? fileAddress(base, { column: photo.id, row: row.id, file: cell.file }) : undefined
	})
	const address = $derived(addressOf(line, row.id, { url: page.url, base, from }))
	/** The margin of the ledger stands where something can stand in it. */
	const hasMargin = $derived(line.marks.length > 0 || look.due !== undefined)
	const shape = $derived(stamp?.tone)
</script>

<li class:on={isSelected || several.has(row.id)} onpointerdown={() => isChanged && now.looked(line.id, row.id)}>
	{#if several.isOn}
		<label class="choose">
			<input
				id="{id}-choose"
				type="checkbox"
				checked={several.has(row.id)}
				onclick={(event) => onchoose(event, row.id)}
			/>
			<span class="visually-hidden">Choose {name}</span>
		</label>
	{:else if line.ticks}
		<RowTick {line} column={line.ticks} {row} {name} {path} />
	{/if}
	<svelte:element
		this={several.isOn ? 'label' : address ? 'a' : 'div'}
		class="row {hasMargin ? '' : 'bare'}"
		for={several.isOn ? `${id}-choose` : undefined}
		href={several.isOn ? undefined : address}
		data-sveltekit-noscroll
		aria-current={address && isSelected ? 'true' : undefined}
	>
		{#if hasMargin}<span class="margin"
				>{#if shape}<Mark tone={shape} />{/if}</span
			>{/if}
		{#if look.photo}<span class="picture"
				>{#if picture}<img src={picture} alt="" loading="lazy" />{/if}</span
			>{/if}
		<span class="words">
			<span class="name"
				><strong class:num={look.big && isNumeric(look.big)}>{name}</strong>{#if isChanged}<Changed />{/if}</span
			>
			<span class="quiet">{smallText(look, row)}</span>
		</span>
		<span class="side">
			{#if look.amount}<span class="amount">{showCell(look.amount, row.cells[cellKey(look.amount.id)])}</span>{/if}
			{#if stamp}<span class="says {shape ?? ''}">{stamp.text}</span>{/if}
			{#if mark && due && due.text !== mark.word}<span class="says quiet">{due.text}</span>{/if}
		</span>
	</svelte:element>
	{#if line.actions.length > 0 && !several.isOn}<RowActions
			actions={line.actions}
			row={row.id}
			{name}
			{path}
			{base}
			{from}
		/>{/if}
</li>

<style>
	li {
		display: flex;
		flex-wrap: wrap;
		border-bottom: 1px solid var(--zinc-2);
		background: var(--paper);
	}
	.choose {
		flex: none;
		display: grid;
		place-items: center;
		width: 56px;
		min-height: 56px;
	}
	.choose input {
		width: 22px;
		height: 22px;
	}
	.row {
		flex: 1;
		min-width: 0;
		display: flex;
		align-items: center;
		gap: 0.8rem;
		min-height: 56px;
		padding: 0.5rem 1.2rem 0.5rem 0;
		color: inherit;
		text-decoration: none;
	}
	.row.bare {
		padding-left: 1.2rem;
	}
	a.row:hover,
	li.on {
		background: var(--selected);
	}
	li.on {
		box-shadow: inset 4px 0 0 var(--marigold);
	}
	/* The margin of the ledger: the shape stands in it, the word at the other end. */
	.margin {
		flex: none;
		display: grid;
		place-items: center;
		align-self: stretch;
		width: 2.6rem;
		border-right: 1px solid var(--zinc-2);
	}
	.picture {
		flex: none;
		width: 52px;
		height: 44px;
		border: 1px solid var(--zinc-2);
		border-radius: 3px;
		overflow: hidden;
	}
	.picture img {
		width: 100%;
		height: 100%;
		object-fit: cover;
	}
	.words {
		flex: 1;
		display: grid;
		min-width: 0;
	}
	strong {
		font-size: 1.05rem;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.words .quiet {
		font-size: 0.92rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.side {
		display: grid;
		justify-items: end;
		gap: 0.15rem;
		flex: none;
	}
	.amount {
		font-variant-numeric: tabular-nums;
		font-weight: 600;
	}
	.says {
		font-size: 0.92rem;
	}
	.past,
	.look {
		font-weight: 650;
	}
	.past {
		color: var(--oxide);
	}
	.look {
		color: var(--rope);
	}
	.sound,
	.finished {
		color: var(--bottle);
	}
	.later {
		color: var(--sea);
	}
	/* Takes no room, so that nothing moves. */
	.name {
		display: flex;
		align-items: baseline;
		gap: 0.6rem;
		min-width: 0;
	}
</style>
