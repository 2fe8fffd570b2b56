<script lang="ts">
	/** Places that are called at one after another: dragged to another turn, or moved there by keys, with how far it is between them. */
	import { page } from '$app/state'
	import { sayDistance } from '$lib/core/map/mercator.ts'
	import { inOrder, legsOf, type StopTo } from '$lib/core/map/stops.ts'
	import type { ScreenPath } from '$lib/core/requests/screens.ts'
	import type { ShownMap } from '$lib/core/requests/shown-rows.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { usePressNote } from '../press-note.svelte.ts'
	import { besideList, heldIn } from '../screen-address.ts'
	import { withTurn, type Lying } from './lying.ts'
	import MapEntry from './MapEntry.svelte'

	type Props = {
		line: ShownMap & { readonly id: string }
		all: readonly Lying[]
		chosen: string | null
		path: ScreenPath
		base: string
		from: string
		onchoose: (row: string) => void
	}

	let { line, all, chosen, path, base, from, onchoose }: Props = $props()

	const note = usePressNote()
	const known = $derived(withTurn(all))
	const calls = $derived(inOrder(known))
	const others = $derived(known.filter(({ number }) => number === null))
	const legs = $derived(legsOf(calls.map(({ place }) => place)))
	const whole = $derived(legs.reduce((sum, leg) => sum + leg, 0))
	const canMove = $derived(line.order?.canMove ?? false)
	const MOST = 60
	let dragged = $state<string | undefined>()
	let over = $state<string | undefined>()

	const hrefOf = (row: string) =>
		line.opens === null ? undefined : besideList(page.url, { to: `${base}/${line.opens}`, row, from })

	async function move({ row, name }: Lying, to: StopTo) {
		const others = calls.filter((call) => call.row !== row)
		const at = typeof to === 'object' ? others.findIndex((call) => call.row === to.before) : others.length
		const what = to === 'out' ? `${name} is left out` : `${name} is call ${at + 1}`
		await note.press(path, { kind: 'order', line: line.id, row, to, held: heldIn(page.url) }, what)
	}

	/** By one: before the last one, or before the one after the next. */
	function step(at: number, by: -1 | 1) {
		const call = calls[at]
		const [next, other] = [calls[at + by], calls[by < 0 ? at - 1 : at + 2]]
		if (call && next) void move(call, other ? { before: other.row } : 'last')
	}

	function onkeydown(event: KeyboardEvent, at: number) {
		if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return
		event.preventDefault()
		step(at, event.key === 'ArrowUp' ? -1 : 1)
	}

	function drop(event: DragEvent, to: StopTo) {
		event.preventDefault()
		const call = all.find(({ row }) => row === dragged)
		const isSame = typeof to === 'object' && to.before === dragged
		dragged = over = undefined
		if (call && !isSame) void move(call, to)
	}

	function dragOver(event: DragEvent, row: string) {
		if (dragged === undefined) return
		event.preventDefault()
		over = row
	}
</script>

{#snippet keys(call: Lying, at: number)}
	<span class="keys">
		<button class="btn" disabled={at === 0} onclick={() => step(at, -1)}>Earlier</button>
		<button class="btn" disabled={at === calls.length - 1} onclick={() => step(at, 1)}>Later</button>
		<button class="btn" onclick={() => move(call, 'out')}>Leave out</button>
	</span>
{/snippet}

<div class="stops">
	<p role="status">
		{calls.length === 0
			? `Nothing is called at yet${canMove && others.length > 0 ? ': add the first call below' : ''}.`
			: `${countOf(calls.length, 'call')}, ${sayDistance(whole)} in straight lines`}
	</p>
	<ol>
		{#each calls as call, i (call.row)}
			<MapEntry
				{line}
				each={call}
				href={hrefOf(call.row)}
				isChosen={chosen === call.row}
				{onchoose}
				far={i === 0 ? '' : sayDistance(legs[i] ?? 0)}
				number={i + 1}
				isOver={over === call.row}
				draggable={canMove}
				ondragstart={() => (dragged = call.row)}
				ondragover={(event: DragEvent) => dragOver(event, call.row)}
				ondragleave={() => over === call.row && (over = undefined)}
				ondrop={(event: DragEvent) => drop(event, { before: call.row })}
				ondragend={() => (dragged = over = undefined)}
				onkeydown={canMove ? (event: KeyboardEvent) => onkeydown(event, i) : undefined}
			>
				{#if canMove && chosen === call.row}{@render keys(call, i)}{/if}
			</MapEntry>
		{/each}
		{#if dragged !== undefined}
			<li
				class="end"
				class:over={over === 'end'}
				ondragover={(event) => dragOver(event, 'end')}
				ondrop={(event) => drop(event, 'last')}
			>
				to the end
			</li>
		{/if}
	</ol>
	{#if others.length > 0}
		<h3>Not called at</h3>
		<ul>
			{#each others.slice(0, MOST) as other (other.row)}
				<MapEntry
					{line}
					each={other}
					href={hrefOf(other.row)}
					isChosen={chosen === other.row}
					{onchoose}
					far=""
					draggable={canMove}
					ondragstart={() => (dragged = other.row)}
					ondragend={() => (dragged = over = undefined)}
				>
					{#if canMove}<span class="keys"
							><button class="btn" onclick={() => move(other, 'last')}>Add as call {calls.length + 1}</button></span
						>{/if}
				</MapEntry>
			{/each}
		</ul>
		{#if others.length > MOST}<p class="quiet">and {others.length - MOST} more</p>{/if}
	{/if}
</div>

<style>
	.stops {
		min-height: 0;
		overflow: auto;
		border-left: 1px solid var(--zinc-3);
	}
	p,
	h3 {
		padding: 0.5rem 1rem;
	}
	h3 {
		font: 650 0.95rem var(--head);
		background: var(--limewash);
		border-top: 1px solid var(--zinc-3);
	}
	ol,
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	.keys {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		padding: 0.2rem 0 0.5rem;
	}
	.keys .btn {
		min-height: 44px;
	}
	.end {
		padding: 0.8rem 1rem;
		border-top: 1px dashed var(--zinc-5);
	}
	.end.over {
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	@media screen and (max-width: 900px) {
		.stops {
			border-left: 0;
			border-top: 1px solid var(--pitch);
		}
	}
	@media print {
		.stops {
			overflow: visible;
			border-left: 0;
		}
		.keys {
			display: none;
		}
	}
</style>
