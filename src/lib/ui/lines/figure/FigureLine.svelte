<script lang="ts">
	/** One number, large, what it counts and how it stands to others; a press shows the rows that make it up. */
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { sayLeftOut } from '$lib/core/chart/left-out.ts'

	type Props = { line: Extract<ShownLine, { kind: 'figure' }>; path: ScreenPath; base: AppBase; from: string }

	let { line, path, base, from }: Props = $props()

	const id = $props.id()
	let isOpen = $state(false)
</script>

<div class="figure">
	<button
		aria-expanded={isOpen}
		aria-controls={isOpen ? `${id}-rows` : undefined}
		aria-describedby="{id}-against"
		onclick={() => (isOpen = !isOpen)}
	>
		<span class="value">{line.value}</span>
		<span class="label">{line.label}</span>
	</button>
	<p id="{id}-against" class="against quiet">
		{#each line.against as { text, isGood }, i (i)}
			<span class:short={isGood === false}>{text}{i < line.against.length - 1 ? '; ' : ''}</span>
		{/each}
		{#if line.leftOut > 0}<span>{sayLeftOut(line.leftOut)}</span>{/if}
	</p>
	{#if isOpen}
		<div class="rows" id="{id}-rows">
			{#await import('../behind/RowsBehind.svelte') then { default: RowsBehind }}
				<RowsBehind {line} {path} {base} {from} filters={[]} />
			{:catch}
				<p class="says-wrong">Its rows could not be loaded: no signal.</p>
			{/await}
		</div>
	{/if}
</div>

<style>
	.figure {
		padding: 0.9rem 1.2rem;
	}
	button {
		display: flex;
		align-items: baseline;
		gap: 0.9rem;
		min-height: 48px;
		padding: 0;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
	}
	button:hover .label {
		text-decoration: underline;
	}
	.value {
		font: 800 2.6rem/1 var(--head);
		font-stretch: 88%;
		font-variant-numeric: tabular-nums;
		white-space: nowrap;
	}
	.label {
		font: 650 1.05rem/1.25 var(--head);
	}
	.short {
		color: var(--oxide);
		font-weight: 600;
	}
	.rows {
		margin-top: 0.5rem;
		border-top: 1px solid var(--zinc-3);
	}
</style>
