<script lang="ts">
	/** What a page of a form asks and shows, in its order. */
	import type { ShownFormPart } from '$lib/core/requests/screens.ts'
	import DividerLine from '../divider/DividerLine.svelte'
	import HeadingLine from '../heading/HeadingLine.svelte'
	import TextLine from '../text/TextLine.svelte'
	import FormEntry from './FormEntry.svelte'
	import FormItems from './FormItems.svelte'
	import { abreast } from './form-parts.ts'
	import type { FormState } from './form-state.svelte.ts'

	type Props = {
		form: FormState
		parts: readonly ShownFormPart[]
		base: string
		onchange: () => void
	}

	let { form, parts, base, onchange }: Props = $props()
</script>

{#snippet one(part: ShownFormPart)}
	{#if part.kind === 'entry'}
		<FormEntry {form} entry={part} {base} {onchange} />
	{:else if part.kind === 'items'}
		<FormItems {form} items={part} {base} {onchange} />
	{:else if part.kind === 'shown'}
		<p class="worked"><span>{part.label}</span> <output>{form.verdictAt().shown[part.id] ?? ''}</output></p>
	{:else if part.kind === 'heading'}
		<HeadingLine line={part} />
	{:else if part.kind === 'text'}
		<TextLine line={part} />
	{:else}
		<DividerLine line={part} />
	{/if}
{/snippet}

{#each abreast(parts) as row (row[0]?.id)}
	{#if row.length === 1}
		{#each row as part (part.id)}{@render one(part)}{/each}
	{:else}
		<div class="abreast">
			{#each row as part (part.id)}{@render one(part)}{/each}
		</div>
	{/if}
{/each}

<style>
	/* As many side by side as there is room for. */
	.abreast {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(11rem, 100%), 1fr));
		gap: 1rem;
		align-items: start;
	}
	.worked {
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		padding: 0.5rem 0;
		border-block: 1px solid var(--zinc-2);
	}
	output {
		font-weight: 700;
	}
</style>
