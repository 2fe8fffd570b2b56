<script lang="ts">
	/**
	 * One line of a ledger: its number in the margin, its sentence, its slots. A slot opens in place, under its line.
	 * Tab walks the slots, Enter opens one, Escape closes it, Alt with the arrows moves the line.
	 */
	import type { Snippet } from 'svelte'
	import { chooseTable, readSlot, writeSlot } from '$lib/core/sentence/line-values.ts'
	import { printLine, tableOf } from '$lib/core/sentence/print.ts'
	import type { LineValue, SentenceKind, Slot } from '$lib/core/sentence/types.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import SlotEditor from './SlotEditor.svelte'

	type Props = {
		kind: SentenceKind
		line: LineValue
		vocabulary: Vocabulary
		/** The table that the line stands under, where its own sentence names none. */
		table?: number
		number: number | string
		marked?: boolean
		/** What is wrong with a slot, by its key. */
		issues?: Readonly<Record<string, string>>
		onchange: (line: LineValue) => void
		onremove?: () => void
		onmove?: (by: -1 | 1) => void
		/** What the line comes to. */
		beside?: Snippet
	}

	let {
		kind,
		line,
		vocabulary,
		table,
		number,
		marked = false,
		issues = {},
		onchange,
		onremove,
		onmove,
		beside
	}: Props = $props()

	let open = $state<string | undefined>()
	let root: HTMLElement

	const segments = $derived(printLine(kind, line, vocabulary, table))
	const slot = $derived(kind.parts.find((part) => typeof part !== 'string' && part.key === open))
	const about = $derived(tableOf(kind, line, table))
	const wrong = $derived(Object.values(issues))

	function filled(changed: Slot, value: unknown): LineValue {
		if (changed.type !== 'table' || value === readSlot(line, changed.key)) return writeSlot(line, changed.key, value)
		const columns = vocabulary.tables.find((each) => each.id === value)?.columns.map((column) => column.id) ?? []
		return chooseTable(kind, line, { key: changed.key, table: Number(value), columns })
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
		if (event.altKey && onmove && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
			event.preventDefault()
			onmove(event.key === 'ArrowUp' ? -1 : 1)
		}
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="line"
	class:open={open !== undefined}
	class:marked
	bind:this={root}
	role="group"
	aria-label="Line {number}"
	{onkeydown}
>
	<div class="margin">{number}</div>
	<div class="body">
		<p class="sentence">
			{#each segments as segment, i (i)}{#if segment.kind === 'words'}{segment.text}{:else}<button
						class="slot"
						class:mono={segment.mono}
						class:blank={!segment.filled}
						class:now={open === segment.slot.key}
						class:bad={issues[segment.slot.key] !== undefined}
						data-slot={segment.slot.key}
						aria-expanded={open === segment.slot.key}
						onclick={() => (open = open === segment.slot.key ? undefined : segment.slot.key)}>{segment.text}</button
					>{/if}{/each}
		</p>
		{#each wrong as text (text)}<p class="says-wrong">{text}</p>{/each}
		{#if slot && typeof slot !== 'string'}
			<div class="editor">
				<SlotEditor
					{slot}
					value={readSlot(line, slot.key)}
					{line}
					{vocabulary}
					table={about}
					onchange={(value) => onchange(filled(slot, value))}
					onclose={close}
				/>
			</div>
		{/if}
	</div>
	{#if beside}<div class="beside">{@render beside()}</div>{/if}
	<div class="tools">
		{#if onmove}
			<button onclick={() => onmove?.(-1)} aria-label="Move line {number} up" title="Move up (Alt ↑)">↑</button>
			<button onclick={() => onmove?.(1)} aria-label="Move line {number} down" title="Move down (Alt ↓)">↓</button>
		{/if}
		{#if onremove}<button onclick={onremove} aria-label="Remove line {number}" title="Remove">✕</button>{/if}
	</div>
</div>

<style>
	.line {
		display: grid;
		grid-template-columns: 40px minmax(0, 1fr) auto;
		border-bottom: 1px solid var(--zinc-2);
		background: var(--paper);
	}
	.line:has(.beside) {
		grid-template-columns: 40px minmax(0, 1fr) 13rem auto;
	}
	.line.open,
	.line.marked {
		background: var(--selected);
	}
	.margin {
		background: var(--limewash);
		color: var(--zinc-5);
		font: 500 0.72rem var(--mono);
		padding: 0.95rem 0 0;
		text-align: center;
	}
	.line.marked .margin {
		background: var(--marigold);
		color: #16201b;
	}
	.body {
		padding: 0.55rem 0.9rem;
		min-width: 0;
	}
	.sentence {
		line-height: 1.85;
		color: var(--zinc-7);
		overflow-wrap: anywhere;
	}
	.slot {
		border: 0;
		background: none;
		padding: 0 1px;
		font: inherit;
		font-weight: 700;
		color: var(--pitch);
		border-bottom: 2px solid var(--marigold);
		line-height: 1.25;
		text-align: left;
	}
	.slot.mono {
		font: 600 0.84em var(--mono);
	}
	.slot:hover {
		background: var(--marigold-wash);
	}
	.slot.now {
		background: var(--marigold);
		color: #16201b;
	}
	.slot.blank {
		font-weight: 500;
		font-style: italic;
		color: var(--rope);
	}
	.slot.bad {
		border-bottom-color: var(--oxide);
		border-bottom-style: wavy;
		color: var(--oxide);
	}
	.editor {
		margin: 0.5rem 0 0.4rem;
		padding: 0.9rem 1rem;
		max-width: 34rem;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 8px 24px rgb(0 0 0 / 14%);
	}
	.beside {
		padding: 0.8rem 1rem;
		font-size: 0.92rem;
		border-left: 1px solid var(--zinc-2);
	}
	.tools {
		display: flex;
		align-items: flex-start;
		padding: 0.6rem 0.5rem 0 0;
		opacity: 0.45;
	}
	.line:hover .tools,
	.line:focus-within .tools {
		opacity: 1;
	}
	.tools button {
		border: 0;
		background: none;
		color: var(--zinc-7);
		min-width: 26px;
		min-height: 26px;
		font-size: 0.9rem;
	}
	.tools button:hover {
		color: var(--pitch);
		background: var(--limewash);
	}
</style>
