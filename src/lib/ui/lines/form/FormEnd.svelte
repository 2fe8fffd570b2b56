<script lang="ts">
	/** The buttons at the end of a form, with what is still missing and what came of sending it. */
	import type { FormState } from './form-state.svelte.ts'

	type Props = { form: FormState; onback: () => void }

	let { form, onback }: Props = $props()

	const missing = $derived(form.page ? form.missingOn(form.page.parts) : [])
	const words = $derived(form.busy ? 'Sending…' : form.isLast ? (form.line().changes ? 'Save' : 'Send') : 'Next')
</script>

<div class="end">
	{#if form.pageAt > 0}<button type="button" class="btn" onclick={onback}>Back</button>{/if}
	<button class="btn main" class:closed={missing.length > 0} disabled={form.busy}>{words}</button>
	{#if missing.length > 0}<p class="quiet">Still to fill in: {missing.join(', ')}</p>{/if}
	{#if form.said}<p class:says-wrong={form.said.wrong} class:thanks={!form.said.wrong} role="status">
			{form.said.text}
		</p>{/if}
</div>

<style>
	.end {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 1rem;
	}
	.end .btn {
		min-height: 52px;
		padding: 0.5rem 2rem;
		font-size: 1.05rem;
	}
	.closed {
		background: var(--zinc-2);
		color: var(--zinc-7);
		border-color: var(--zinc-5);
	}
	.thanks {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
		font-weight: 600;
	}
	@media (max-width: 640px) {
		.end .main {
			flex: 1;
		}
	}
</style>
