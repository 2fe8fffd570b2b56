<script lang="ts">
	/** Which cells of a paste or a fill do not fit and why, with the choice of putting in none or those that do. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { ShownMisfit } from './misfit.ts'

	type Props = { misfits: readonly ShownMisfit[]; total: number; onnone: () => void; onpartly: () => void }

	let { misfits, total, onnone, onpartly }: Props = $props()
</script>

<div class="notice" role="alert">
	<div>
		<p>
			<strong
				>{misfits.length} of {countOf(total, 'cell')}
				{misfits.length === 1 ? 'does' : 'do'} not fit. Nothing was put in yet.</strong
			>
		</p>
		<ul>
			{#each misfits.slice(0, 8) as misfit, i (i)}
				<li><strong>{misfit.place}</strong>: {misfit.message}</li>
			{/each}
			{#if misfits.length > 8}<li>and {misfits.length - 8} more.</li>{/if}
		</ul>
	</div>
	<div class="end">
		<button class="btn" onclick={onnone}>Put in none</button>
		<button class="btn main" onclick={onpartly}>Put in those that fit</button>
	</div>
</div>

<style>
	.notice {
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		background: var(--rope-wash);
		padding: 0.6rem 1.2rem;
	}
	ul {
		margin: 0.3rem 0 0;
		padding-left: 1.1rem;
	}
	.end {
		display: flex;
		gap: 0.5rem;
		align-items: start;
		white-space: nowrap;
	}
</style>
