<script lang="ts">
	/** The tables as boxes and their references as lines between them; boxes are moved by hand or with the arrow keys. */
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { showCount } from '../count.ts'
	import { BOX_WIDTH, DiagramBoard, drawnColumns, type Spot } from './diagram-board.svelte.ts'

	type Props = { tables: readonly BenchTable[]; href: (table: number) => string }

	let { tables, href }: Props = $props()

	const STEP = 16
	const board = new DiagramBoard(() => tables)
	let held = $state<{ table: number; from: Spot; at: Spot } | undefined>()

	function take(event: PointerEvent & { currentTarget: HTMLElement }, table: number) {
		if (event.button !== 0) return
		event.currentTarget.setPointerCapture(event.pointerId)
		held = { table, from: { x: event.clientX, y: event.clientY }, at: board.spotOf(table) }
	}

	function drag(event: PointerEvent) {
		if (!held) return
		board.put(held.table, { x: held.at.x + event.clientX - held.from.x, y: held.at.y + event.clientY - held.from.y })
	}

	const ARROWS: Readonly<Record<string, Spot>> = {
		ArrowLeft: { x: -STEP, y: 0 },
		ArrowRight: { x: STEP, y: 0 },
		ArrowUp: { x: 0, y: -STEP },
		ArrowDown: { x: 0, y: STEP }
	}

	function onkeydown(event: KeyboardEvent, table: number) {
		const by = ARROWS[event.key]
		if (!by) return
		event.preventDefault()
		const { x, y } = board.spotOf(table)
		board.put(table, { x: x + by.x, y: y + by.y })
	}

	const sayColumns = ({ columns }: BenchTable) =>
		countOf(columns.filter((column) => !column.condition).length, 'column')
</script>

<section aria-label="How the tables hang together">
	<header>
		<h1>How the tables hang together</h1>
		<span class="quiet">Drag a table by its name, or move it with the arrow keys.</span>
		<button class="btn" onclick={() => board.layAnew()} disabled={!board.isMoved}>Lay them out anew</button>
	</header>
	<div class="sheet">
		<div class="paper" style:width="{board.width}px" style:height="{board.height}px">
			<svg width={board.width} height={board.height} aria-hidden="true">
				<defs>
					<marker id="points" markerWidth="7" markerHeight="7" refX="6" refY="3.5" orient="auto">
						<path d="M 0 0 L 7 3.5 L 0 7 z" />
					</marker>
				</defs>
				{#each board.lines as line (line.key)}<path class="line" d={line.path} marker-end="url(#points)" />{/each}
			</svg>
			{#each tables as table (table.id)}
				{@const spot = board.spotOf(table.id)}
				<article
					style:left="{spot.x}px"
					style:top="{spot.y}px"
					style:width="{BOX_WIDTH}px"
					class:held={held?.table === table.id}
				>
					<button
						class="name"
						aria-label="{table.name}: move with the arrow keys"
						onpointerdown={(event) => take(event, table.id)}
						onpointermove={drag}
						onpointerup={() => (held = undefined)}
						onkeydown={(event) => onkeydown(event, table.id)}
						><span class="title">{table.name}</span> <span class="count">{showCount(table.rows)}</span></button
					>
					<ul>
						{#each drawnColumns(table) as column (column.id)}
							<li>
								{column.name}{#if column.id === table.label}<span class="quiet">known by</span>{/if}
							</li>
						{/each}
					</ul>
					<a href={href(table.id)}>{sayColumns(table)}</a>
				</article>
			{/each}
		</div>
	</div>
	<ul class="spoken">
		{#each board.lines as line (line.key)}<li>{line.says}</li>{/each}
	</ul>
</section>

<style>
	section {
		display: grid;
		grid-template-rows: auto 1fr;
		min-height: 0;
		min-width: 0;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.4rem 1rem;
		padding: 0.8rem 1.2rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	header .btn {
		margin-left: auto;
	}
	.sheet {
		overflow: auto;
		min-height: 0;
		background-color: var(--chalk);
		background-image: radial-gradient(var(--zinc-2) 1px, transparent 1px);
		background-size: 16px 16px;
	}
	.paper {
		position: relative;
		min-width: 100%;
		min-height: 100%;
	}
	svg {
		position: absolute;
		inset: 0;
		pointer-events: none;
	}
	.line {
		fill: none;
		stroke: var(--zinc-7);
		stroke-width: 1.5;
	}
	marker path {
		fill: var(--zinc-7);
	}
	article {
		position: absolute;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
	}
	article.held {
		outline: 2px solid var(--marigold);
	}
	.name {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.5rem;
		width: 100%;
		height: 42px;
		padding: 0 0.7rem;
		border: 0;
		border-bottom: 1px solid var(--zinc-3);
		background: var(--limewash);
		color: var(--pitch);
		font: 650 0.95rem var(--head);
		cursor: grab;
		touch-action: none;
	}
	.title {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.count {
		font-weight: 400;
		font-variant-numeric: tabular-nums;
		color: var(--zinc-7);
	}
	article ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	article li {
		display: flex;
		justify-content: space-between;
		height: 26px;
		padding: 0 0.7rem;
		line-height: 26px;
		font-size: 0.92rem;
	}
	article a {
		display: block;
		padding: 0.1rem 0.7rem 0.35rem;
		font-size: 0.85rem;
	}
	.spoken {
		position: absolute;
		width: 1px;
		height: 1px;
		overflow: hidden;
		clip-path: inset(50%);
	}
</style>
