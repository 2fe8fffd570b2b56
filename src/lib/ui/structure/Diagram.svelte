<script lang="ts">
	/** The tables as boxes and their references as lines between them; boxes are moved by hand or with the arrow keys. */
	import { browser } from '$app/environment'
	import { layOut } from '$lib/core/table/diagram.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { showCount } from '../count.ts'

	type Props = { tables: readonly BenchTable[]; href: (table: number) => string }

	let { tables, href }: Props = $props()

	const KEPT_UNDER = 'tin-shed diagram'
	const WIDE = 190
	const HEAD = 42
	const LINE = 26
	const STEP = 16

	interface Spot {
		readonly x: number
		readonly y: number
	}

	/** Where boxes were moved to by hand, by table. */
	let moved = $state<Record<number, Spot>>(
		browser ? (JSON.parse(localStorage.getItem(KEPT_UNDER) ?? '{}') as Record<number, Spot>) : {}
	)
	let held = $state<{ table: number; from: Spot; at: Spot } | undefined>()

	const shownColumns = (table: BenchTable) =>
		table.columns.filter((column) => column.id === table.label || column.type === 'reference')
	const heightOf = (table: BenchTable) => HEAD + LINE * shownColumns(table).length + 8

	const laid = $derived(
		layOut(
			tables.map((table) => ({
				id: table.id,
				to: table.columns.flatMap((column) => column.to ?? []),
				height: heightOf(table) + 36
			}))
		)
	)

	function spotOf(id: number): Spot {
		const { across, top } = laid.get(id) ?? { across: 0, top: 0 }
		return moved[id] ?? { x: 24 + across * (WIDE + 64), y: 24 + top }
	}

	const wide = $derived(Math.max(0, ...tables.map((table) => spotOf(table.id).x)) + WIDE + 60)
	const high = $derived(Math.max(0, ...tables.map((table) => spotOf(table.id).y + heightOf(table))) + 60)

	interface Line {
		readonly key: string
		readonly path: string
		readonly says: string
	}

	const lines = $derived(
		tables.flatMap((table) =>
			shownColumns(table).flatMap((column, i): Line[] => {
				const target = column.type === 'reference' ? tables.find((each) => each.id === column.to) : undefined
				if (!target) return []
				const [from, to] = [spotOf(table.id), spotOf(target.id)]
				const y1 = from.y + HEAD + LINE * i + LINE / 2
				const y2 = to.y + HEAD / 2
				// Out of the side that faces the target, and into the side of it that faces here; round the right of one above.
				const [leaves, enters] = from.x >= to.x + WIDE ? [-1, 1] : to.x >= from.x + WIDE ? [1, -1] : [1, 1]
				const x1 = leaves < 0 ? from.x : from.x + WIDE
				const x2 = enters < 0 ? to.x : to.x + WIDE
				const path = `M ${x1} ${y1} C ${x1 + leaves * 46} ${y1} ${x2 + enters * 46} ${y2} ${x2} ${y2}`
				return [
					{ key: `${table.id} ${column.id}`, path, says: `${table.name}: ${column.name} points to ${target.name}` }
				]
			})
		)
	)

	function put(table: number, spot: Spot) {
		moved = { ...moved, [table]: { x: Math.max(0, spot.x), y: Math.max(0, spot.y) } }
		localStorage.setItem(KEPT_UNDER, JSON.stringify(moved))
	}

	function take(event: PointerEvent, table: number) {
		if (event.button !== 0) return
		;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
		held = { table, from: { x: event.clientX, y: event.clientY }, at: spotOf(table) }
	}

	function drag(event: PointerEvent) {
		if (!held) return
		put(held.table, { x: held.at.x + event.clientX - held.from.x, y: held.at.y + event.clientY - held.from.y })
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
		const { x, y } = spotOf(table)
		put(table, { x: x + by.x, y: y + by.y })
	}

	function layAnew() {
		moved = {}
		localStorage.removeItem(KEPT_UNDER)
	}

	function sayColumns({ columns }: BenchTable): string {
		const count = columns.filter((column) => !column.condition).length
		return `${count} ${count === 1 ? 'column' : 'columns'}`
	}
</script>

<section aria-label="How the tables hang together">
	<header>
		<h1>How the tables hang together</h1>
		<span class="quiet">Drag a table by its name, or move it with the arrow keys.</span>
		<button class="btn" onclick={layAnew} disabled={Object.keys(moved).length === 0}>Lay them out anew</button>
	</header>
	<div class="sheet">
		<div class="paper" style:width="{wide}px" style:height="{high}px">
			<svg width={wide} height={high} aria-hidden="true">
				<defs>
					<marker id="points" markerWidth="7" markerHeight="7" refX="6" refY="3.5" orient="auto">
						<path d="M 0 0 L 7 3.5 L 0 7 z" />
					</marker>
				</defs>
				{#each lines as line (line.key)}<path class="line" d={line.path} marker-end="url(#points)" />{/each}
			</svg>
			{#each tables as table (table.id)}
				{@const spot = spotOf(table.id)}
				<article
					style:left="{spot.x}px"
					style:top="{spot.y}px"
					style:width="{WIDE}px"
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
						{#each shownColumns(table) as column (column.id)}
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
		{#each lines as line (line.key)}<li>{line.says}</li>{/each}
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
