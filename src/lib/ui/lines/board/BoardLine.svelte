<script lang="ts">
	/** Rows in lanes. A card is dragged to another one, or moved there by a key; what would be refused is said before. */
	import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import type { Move } from '$lib/core/requests/screen-doings.ts'
	import type { ShownLane } from '$lib/core/requests/shown-rows.ts'
	import type { WireRow } from '$lib/core/query/wire.ts'
	import { send } from '../../send.ts'
	import { usePressNote } from '../press-note.svelte.ts'
	import { showFigure } from '../../count.ts'
	import BoardCard from './BoardCard.svelte'

	type Props = { line: Extract<ShownLine, { kind: 'board' }>; path: ScreenPath; base: string; from: string }

	let { line, path, base, from }: Props = $props()

	const note = usePressNote()
	/** The card that is dragged, or whose lanes are offered, and what each lane would say to it. */
	let held = $state.raw<{ row: string; lane: string; moves: readonly Move[]; isDragged: boolean } | undefined>()
	let over = $state<string | undefined>()

	const refusedBy = (lane: string) => held?.moves.find(({ to }) => to === lane)?.refused ?? null

	async function take(row: WireRow, lane: ShownLane, isDragged: boolean) {
		held = { row: row.id, lane: lane.value, moves: [], isDragged }
		// It changes nothing, so nobody is told.
		const answer = await send('POST', `${path}/do`, { kind: 'moves', line: line.id, row: row.id })
		if (held?.row !== row.id) return
		if (answer.ok) held = { ...held, moves: answer.value }
		else note.say(answer.refusal.message)
	}

	async function move(to: string) {
		const row = held?.row
		const isSame = held?.lane === to
		held = undefined
		over = undefined
		if (row === undefined || isSame) return
		await note.press(path, { kind: 'move', line: line.id, row, to }, `moved to ${to || `no ${line.by.toLowerCase()}`}`)
	}

	function dragOver(event: DragEvent, lane: string) {
		if (!held?.isDragged || refusedBy(lane) !== null) return
		event.preventDefault()
		over = lane
	}
</script>

<div class="board" style:--lanes={line.lanes.length} role="group" aria-label="{line.title} by {line.by.toLowerCase()}">
	{#each line.lanes as lane, at (lane.value)}
		{@const refused = held?.isDragged ? refusedBy(lane.value) : null}
		<section
			class:over={over === lane.value && held?.lane !== lane.value}
			class:refused={refused !== null}
			aria-label="{lane.value || 'left blank'}, {lane.count}"
			ondragover={(event) => dragOver(event, lane.value)}
			ondragleave={() => over === lane.value && (over = undefined)}
			ondrop={(event) => {
				event.preventDefault()
				void move(lane.value)
			}}
		>
			<header>
				<span class="no">{at + 1}</span>
				<h2>{lane.value || 'left blank'}</h2>
				<span class="count">{showFigure(lane.count)}</span>
			</header>
			{#if refused !== null}<p class="says">{refused}</p>{/if}
			<ul>
				{#each lane.rows as row (row.id)}
					<BoardCard
						{line}
						{row}
						{base}
						{from}
						offered={held?.row === row.id && !held.isDragged ? held.moves : null}
						lane={lane.value}
						ontake={(isDragged) => take(row, lane, isDragged)}
						onmove={move}
						onleave={() => (held = undefined)}
					/>
				{/each}
			</ul>
			{#if lane.count > lane.rows.length}<p class="quiet more">
					and {showFigure(lane.count - lane.rows.length)} more
				</p>{/if}
			{#if lane.sum}<p class="sum"><span class="quiet">together</span> <strong>{lane.sum}</strong></p>{/if}
		</section>
	{/each}
</div>

<style>
	.board {
		/* What only who hears the page gets lies where its card does. */
		position: relative;
		display: grid;
		grid-template-columns: repeat(var(--lanes), minmax(15rem, 1fr));
		overflow-x: auto;
		border-block: 1px solid var(--pitch);
		scroll-snap-type: x proximity;
	}
	section {
		min-height: 16rem;
		min-width: 0;
		scroll-snap-align: start;
		border-right: 1px solid var(--zinc-3);
	}
	section.over {
		background: var(--marigold-wash);
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	section.refused {
		background: repeating-linear-gradient(135deg, transparent 0 7px, var(--zinc-2) 7px 8px);
	}
	header {
		display: flex;
		align-items: baseline;
		gap: 0.8rem;
		padding: 0.6rem 0.8rem;
		background: var(--limewash);
		border-bottom: 1px solid var(--pitch);
	}
	.no {
		font: 600 0.85rem var(--mono);
		color: var(--zinc-7);
	}
	h2 {
		flex: 1;
		font-size: 1.05rem;
	}
	.count {
		font: 700 1.05rem var(--head);
		font-variant-numeric: tabular-nums;
	}
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	.says {
		padding: 0.5rem 0.8rem;
		background: var(--oxide-wash);
		color: var(--oxide);
		font-weight: 600;
	}
	.more {
		padding: 0.5rem 0.8rem;
	}
	.sum {
		display: flex;
		justify-content: space-between;
		margin-left: 2.4rem;
		padding: 0.4rem 0.8rem;
		border-top: 1px solid var(--pitch);
		border-bottom: 3px double var(--pitch);
		font-variant-numeric: tabular-nums;
	}
	@media screen and (max-width: 640px) {
		.board {
			grid-template-columns: repeat(var(--lanes), minmax(82vw, 1fr));
		}
	}
	/* On paper every lane has its share of the sheet. */
	@media print {
		.board {
			grid-template-columns: repeat(var(--lanes), minmax(0, 1fr));
			overflow: visible;
		}
	}
</style>
