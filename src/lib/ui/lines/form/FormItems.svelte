<script lang="ts">
	/** Rows that go in together with the form's own: one card each, and what they come to together. */
	import type { ShownItems } from '$lib/core/requests/screens.ts'
	import FormEntry from './FormEntry.svelte'
	import type { FormState } from './form-state.svelte.ts'

	type Props = {
		form: FormState
		items: ShownItems
		base: string
		onchange: () => void
	}

	let { form, items, base, onchange }: Props = $props()

	const rows = $derived(form.draft.items[items.id] ?? [])
	const sums = $derived(form.verdict?.items[items.id]?.sums ?? {})
	let root: HTMLElement

	function add() {
		form.addRow(items)
		onchange()
		requestAnimationFrame(() => {
			const last = [...root.querySelectorAll('.row')].at(-1)
			last?.querySelector<HTMLElement>('input, select, textarea, button')?.focus()
		})
	}

	function remove(at: number) {
		form.removeRow(items, at)
		onchange()
	}
</script>

<section bind:this={root} aria-label={items.title}>
	<h3>
		{items.title}{#if items.least > 0}<span class="quiet">, at least {items.least}</span>{/if}
	</h3>
	{#each rows as _row, at (at)}
		{@const place = { items: items.id, at }}
		<div class="row" role="group" aria-label="{items.title}, {at + 1}">
			<div class="number">{at + 1}</div>
			<div class="parts">
				{#each items.parts as part (part.id)}
					{#if part.kind === 'entry'}
						<FormEntry {form} entry={part} {place} {base} {onchange} />
					{:else}
						<p class="worked">
							<span>{part.label}</span> <output>{form.verdictAt(place).shown[part.id] ?? ''}</output>
						</p>
					{/if}
				{/each}
			</div>
			<button type="button" class="off" onclick={() => remove(at)} aria-label="Take {at + 1} of {items.title} off"
				>✕</button
			>
		</div>
	{/each}
	<div class="foot">
		<button type="button" class="btn" onclick={add}>{rows.length === 0 ? 'Add one' : 'Add another'}</button>
		{#each items.parts as part (part.id)}
			{#if part.kind === 'shown' && sums[part.id] !== undefined && rows.length > 1}
				<p>{part.label} together <output>{sums[part.id]}</output></p>
			{/if}
		{/each}
	</div>
</section>

<style>
	section {
		display: grid;
		gap: 0.7rem;
	}
	h3 {
		font: 650 1rem var(--head);
	}
	h3 .quiet {
		font-weight: 500;
	}
	.row {
		display: grid;
		grid-template-columns: 2.2rem minmax(0, 1fr) 44px;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--paper);
	}
	.number {
		background: var(--limewash);
		color: var(--zinc-7);
		font: 600 0.9rem var(--mono);
		padding-top: 0.9rem;
		text-align: center;
	}
	.parts {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(14rem, 100%), 1fr));
		gap: 0.8rem 1rem;
		padding: 0.8rem 0.9rem;
	}
	.worked {
		align-self: end;
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		padding: 0.6rem 0;
	}
	output {
		font-weight: 700;
	}
	.off {
		border: 0;
		background: none;
		color: var(--zinc-7);
		min-height: 44px;
		align-self: start;
	}
	.off:hover {
		color: var(--oxide);
	}
	.foot {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: center;
		gap: 0.8rem;
	}
	.foot .btn {
		min-height: 48px;
	}
</style>
