<script lang="ts">
	/** One row in a lane, with the way to move it that needs neither mouse nor a steady hand. */
	import type { Move } from '$lib/core/requests/screen-doings.ts'
	import type { ShownBoard } from '$lib/core/requests/shown-rows.ts'
	import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import Mark from '../list/Mark.svelte'

	type Props = {
		line: ShownBoard
		row: WireRow
		base: string
		from: string
		/** What each lane says to it, where its lanes are offered; none yet, while that is asked. */
		offered: readonly Move[] | null
		lane: string
		ontake: (isDragged: boolean) => void
		onmove: (to: string) => void
		onleave: () => void
	}

	let { line, row, base, from, offered, lane, ontake, onmove, onleave }: Props = $props()

	const id = $props.id()
	const mark = $derived(line.marks[row.flags?.[0] ?? -1])
	const texts = $derived(line.columns.map((column) => showCell(column, row.cells[cellKey(column.id)])))
	const name = $derived(texts[0] || '(blank)')
	let key = $state<HTMLElement>()

	function onkeydown(event: KeyboardEvent) {
		if (offered === null) return
		if (event.key === 'Escape') {
			event.stopPropagation()
			onleave()
			key?.focus()
		}
		// By the numbers over the lanes.
		const target = line.lanes[Number(event.key) - 1]
		if (/^\d$/.test(event.key) && target && offered.some(({ to, refused }) => to === target.value && refused === null))
			onmove(target.value)
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<li
	class:taken={offered !== null}
	draggable={line.canMove}
	ondragstart={(event) => {
		event.dataTransfer?.setData('text/plain', name)
		ontake(true)
	}}
	ondragend={onleave}
	{onkeydown}
>
	<div class="margin">
		{#if mark}<Mark tone={mark.tone} />{/if}
	</div>
	<div class="words">
		{#if line.opens !== null}<a href="{base}/{line.opens}?row={row.id}&from={from}">{name}</a>{:else}<strong
				>{name}</strong
			>{/if}
		<span class="quiet small"
			>{#each texts.slice(1).filter(Boolean) as text, i (i)}{i > 0 ? ' · ' : ''}<span>{text}</span>{/each}</span
		>
		{#if mark}<span class="word">{mark.word}</span>{/if}
		{#if line.canMove}
			<button
				class="move"
				bind:this={key}
				aria-expanded={offered !== null}
				aria-controls={offered !== null ? `${id}-lanes` : undefined}
				onclick={() => (offered === null ? ontake(false) : onleave())}
				>Move to…<span class="visually-hidden"> {name}</span></button
			>
		{/if}
	</div>
	{#if offered !== null}
		<ul id="{id}-lanes" class="lanes" aria-label="Move {name} to">
			{#each line.lanes as each, at (each.value)}
				{@const move = offered.find(({ to }) => to === each.value)}
				{#if each.value !== lane && each.value !== ''}
					<li>
						<button disabled={!move || move.refused !== null} onclick={() => onmove(each.value)}>
							<span class="no">{at + 1}</span>
							<span class="to">{each.value}</span>
						</button>
						{#if move?.refused}<span class="why">{move.refused}</span>{/if}
					</li>
				{/if}
			{/each}
		</ul>
	{/if}
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 2.4rem minmax(0, 1fr);
		border-bottom: 1px solid var(--zinc-2);
		background: var(--paper);
	}
	li.taken {
		outline: 3px solid var(--marigold);
		outline-offset: -3px;
	}
	.margin {
		display: grid;
		justify-items: center;
		padding-top: 0.8rem;
		border-right: 1px solid var(--zinc-2);
	}
	.words {
		display: grid;
		justify-items: start;
		min-width: 0;
		padding: 0.5rem 0.8rem 0.2rem;
	}
	a,
	strong {
		font-weight: 650;
		color: inherit;
		overflow-wrap: anywhere;
	}
	a {
		min-height: 32px;
	}
	.small span {
		white-space: nowrap;
	}
	.word {
		font-weight: 600;
	}
	.move {
		justify-self: end;
		min-height: 44px;
		padding: 0 0.2rem;
		border: 0;
		background: none;
		color: var(--sea);
		font: 600 0.92rem var(--head);
		text-decoration: underline;
	}
	.lanes {
		grid-column: 1 / -1;
		margin: 0;
		padding: 0;
		list-style: none;
		border-top: 1px solid var(--zinc-3);
	}
	.lanes li {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0 0.8rem;
		padding-right: 0.8rem;
	}
	.lanes button {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		flex: 1;
		min-height: 44px;
		padding: 0 0.8rem;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
		font-weight: 650;
	}
	.lanes button:hover:not(:disabled) {
		background: var(--marigold-wash);
	}
	.lanes button:disabled {
		color: var(--zinc-5);
	}
	.lanes button:disabled .to {
		text-decoration: line-through;
	}
	.no {
		font: 600 0.85rem var(--mono);
	}
	.why {
		flex-basis: 100%;
		padding: 0 0.8rem 0.5rem 2.4rem;
		color: var(--oxide);
	}
	@media print {
		.move {
			display: none;
		}
	}
</style>
