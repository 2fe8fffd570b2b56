<script lang="ts">
	/** A line of a ledger: Tab walks its slots, Enter opens one under it, Escape closes it, Alt with the arrows moves the line. */
	import type { Snippet } from 'svelte'
	import { fillSlot, readSlot } from '$lib/core/sentence/line-values.ts'
	import type { Direction } from '$lib/core/app/lines/tree.ts'
	import { tableOf } from '$lib/core/sentence/print.ts'
	import type { LineValue, SentenceKind, Slot } from '$lib/core/sentence/types.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import LineNumber from './LineNumber.svelte'
	import LineText from './LineText.svelte'
	import LineTools from './LineTools.svelte'
	import SlotEditor from './SlotEditor.svelte'
	import { FLAT_WAYS, WAYS } from './line-ways.ts'

	type Props = {
		kind: SentenceKind
		line: LineValue
		vocabulary: Vocabulary
		/** The table that the line stands under, where its own sentence names none. */
		table?: number | undefined
		/** The table of the row that goes in together with the line's. */
		outer?: number | undefined
		number: number | string
		marked?: boolean
		/** What is wrong with a slot, by its key. */
		issues?: Readonly<Record<string, string>>
		onchange: (line: LineValue) => void
		onremove?: () => void
		onmove?: (to: Direction) => void
		/** Taken hold of by its number, to be dragged. */
		ongrab?: (event: PointerEvent) => void
		/** How deep it stands in others; where levels are, it moves in and out too. */
		level?: number
		/** What the line comes to. */
		beside?: Snippet
	}

	let {
		kind,
		line,
		vocabulary,
		table,
		outer,
		number,
		marked = false,
		issues = {},
		onchange,
		onremove,
		onmove,
		ongrab,
		level,
		beside
	}: Props = $props()

	let open = $state<string | undefined>()
	let root: HTMLElement

	const slot = $derived(kind.parts.find((part): part is Slot => typeof part !== 'string' && part.key === open))
	const ways = $derived(level === undefined ? FLAT_WAYS : WAYS)

	/** For the slot that stands open now: what takes its time to come may find it closed. */
	function fillOf(opened: Slot) {
		return (value: unknown) => onchange(fillSlot(kind, line, opened, value, vocabulary.tables))
	}

	function close() {
		const key = open
		open = undefined
		requestAnimationFrame(() => root.querySelector<HTMLElement>(`[data-slot="${key}"]`)?.focus())
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Escape' && open !== undefined) {
			event.stopPropagation()
			close()
		}
		const way = event.altKey && onmove ? ways.find(({ key }) => key === event.key) : undefined
		if (way) {
			event.preventDefault()
			onmove?.(way.to)
		}
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="line"
	class:open={open !== undefined}
	class:marked
	style:--level={level ?? 0}
	tabindex="-1"
	bind:this={root}
	role="group"
	aria-label="Line {number}"
	{onkeydown}
>
	<LineNumber {number} {marked} {ongrab} />
	<div class="body">
		<LineText
			{kind}
			{line}
			{vocabulary}
			{table}
			{open}
			{issues}
			onopen={(key) => (open = open === key ? undefined : key)}
		/>
		{#if slot}
			<SlotEditor
				{slot}
				value={readSlot(line, slot.key)}
				{line}
				{vocabulary}
				table={tableOf(kind, line, table)}
				{outer}
				onchange={fillOf(slot)}
				onclose={close}
			/>
		{/if}
	</div>
	{#if beside}<div class="beside">{@render beside()}</div>{/if}
	<LineTools {number} ways={onmove ? ways : []} {onmove} {onremove} />
</div>

<style>
	.line {
		display: grid;
		grid-template-columns: 40px minmax(0, 1fr) auto;
		border-bottom: 1px solid var(--zinc-2);
		background: var(--paper);
	}
	.line:has(.beside) {
		/* A ledger whose first line has no tools keeps their room. */
		grid-template-columns: 40px minmax(0, 1fr) 13rem var(--tools, auto);
	}
	.line.open,
	.line.marked {
		background: var(--selected);
	}
	/* How deep a line stands is shown by rules, one for each that holds it. */
	.body {
		padding: 0.55rem 0.9rem 0.55rem calc(0.9rem + var(--level) * 1.4rem);
		min-width: 0;
		background-image: repeating-linear-gradient(
			to right,
			transparent 0 calc(1.4rem - 1px),
			var(--zinc-3) calc(1.4rem - 1px) 1.4rem
		);
		background-size: calc(var(--level) * 1.4rem) 100%;
		background-repeat: no-repeat;
	}
	.beside {
		padding: 0.8rem 1rem;
		font-size: 0.92rem;
		border-left: 1px solid var(--zinc-2);
	}
	.line:focus-within :global(.clauses),
	.line.open :global(.clauses) {
		display: block;
	}
	.line:hover :global(.tools),
	.line:focus-within :global(.tools) {
		opacity: 1;
	}
</style>
