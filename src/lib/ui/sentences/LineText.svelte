<script lang="ts">
	/** A line as it reads: its words, its slots as buttons, and the clauses that it does not have yet. */
	import { openClauses, printLine } from '$lib/core/sentence/print.ts'
	import type { LineValue, SentenceKind } from '$lib/core/sentence/types.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'

	type Props = {
		kind: SentenceKind
		line: LineValue
		vocabulary: Vocabulary
		table: number | undefined
		/** The key of the slot that stands open. */
		open: string | undefined
		issues: Readonly<Record<string, string>>
		onopen: (key: string) => void
	}

	let { kind, line, vocabulary, table, open, issues, onopen }: Props = $props()

	const segments = $derived(printLine(kind, line, vocabulary, table))
	const clauses = $derived(openClauses(kind, line))
</script>

<p class="sentence">
	{#each segments as segment, i (i)}{#if segment.kind === 'words'}{segment.text}{:else}<button
				class="slot"
				class:mono={segment.mono}
				class:blank={!segment.filled}
				class:now={open === segment.slot.key}
				class:bad={issues[segment.slot.key] !== undefined}
				data-slot={segment.slot.key}
				aria-expanded={open === segment.slot.key}
				onclick={() => onopen(segment.slot.key)}>{segment.text}</button
			>{/if}{/each}
</p>
{#each Object.values(issues) as text (text)}<p class="says-wrong">{text}</p>{/each}
{#if clauses.length > 0}
	<p class="clauses">
		and
		{#each clauses as clause (clause.key)}
			<button data-slot={clause.key} aria-expanded={open === clause.key} onclick={() => onopen(clause.key)}
				>{clause.clause}</button
			>
		{/each}
	</p>
{/if}

<style>
	/* Quiet until the line is chosen. */
	.clauses {
		display: none;
		color: var(--zinc-7);
		font-size: 0.9rem;
	}
	.clauses button {
		border: 0;
		border-bottom: 1px dotted var(--zinc-7);
		background: none;
		padding: 0 1px;
		margin-left: 0.6rem;
		font: inherit;
		color: inherit;
	}
	.clauses button:hover {
		color: var(--pitch);
		background: var(--marigold-wash);
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
</style>
