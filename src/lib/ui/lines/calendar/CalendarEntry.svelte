<script lang="ts">
	/** One row on its days: its name, its mark, and the key that moves it. */
	import { page } from '$app/state'
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { ShownCalendar, ShownDayEntry } from '$lib/core/requests/shown-rows.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import Mark from '../list/Mark.svelte'
	import { besideList } from '../screen-address.ts'

	type Props = {
		line: ShownCalendar
		entry: ShownDayEntry
		base: string
		from: string
		/** Whether there is room for more than its name. */
		isWhole?: boolean
		onmove?: (() => void) | undefined
	}

	let { line, entry, base, from, isWhole = false, onmove }: Props = $props()

	const { row, at, says } = $derived(entry)
	const mark = $derived(line.marks[row.flags?.[0] ?? -1])
	const texts = $derived(line.columns.map((column) => showCell(column, row.cells[cellKey(column.id)])))
	const name = $derived(texts[0] || '(blank)')
	const rest = $derived(texts.slice(1).filter(Boolean).join(' · '))
</script>

{#if mark}<Mark tone={mark.tone} />{/if}
<span class="words">
	{#if line.opens !== null}<a
			href={besideList(page.url, { to: `${base}/${line.opens}`, row: row.id, from })}
			title={isWhole ? undefined : [name, rest, mark?.word].filter(Boolean).join(' · ')}
			draggable="false">{name}</a
		>{:else}<strong title={isWhole ? undefined : rest}>{name}</strong>{/if}
	{#if at}<span class="at">{at}</span>{/if}
	<span class="visually-hidden">, {says}</span>
	{#if isWhole ? rest : texts[1]}<span class="quiet">{isWhole ? rest : texts[1]}</span>{/if}
	{#if isWhole && mark}<span class="word">{mark.word}</span>{:else if mark}<span class="visually-hidden"
			>, {mark.word}</span
		>{/if}
</span>
{#if onmove}<button type="button" class="move" class:always={isWhole} onclick={onmove}
		>{isWhole ? 'Move to…' : 'Move'}<span class="visually-hidden">{` ${name}`}</span></button
	>{/if}

<style>
	.words {
		flex: 1;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	a,
	strong {
		color: inherit;
		font-weight: 650;
	}
	.at {
		font-family: var(--mono);
		font-size: 0.85em;
	}
	.word {
		font-weight: 600;
	}
	.move {
		border: 0;
		background: none;
		color: var(--sea);
		font: 600 0.85rem var(--head);
		text-decoration: underline;
		padding: 0 0.15rem;
	}
	/* In a small place it comes with the pointer or the keys. */
	.move:not(.always) {
		position: absolute;
		inset-block: 0;
		right: 2px;
		background: inherit;
		opacity: 0;
	}
	.move:not(.always):focus-visible,
	:global(:hover) > .move:not(.always) {
		opacity: 1;
		background: var(--paper);
	}
	/* A finger hovers over nothing: what it can press is seen. */
	@media (hover: none) {
		.move:not(.always) {
			opacity: 1;
			background: var(--paper);
		}
	}
	.always {
		min-height: 44px;
		align-self: start;
	}
	@media print {
		.move {
			display: none;
		}
	}
</style>
