<script lang="ts">
	/** What came of the last button that was pressed, with the way back. */
	import type { PressNote } from '../lines/press-note.svelte.ts'

	type Props = { note: PressNote }

	let { note }: Props = $props()
</script>

<div class="bar" role="status">
	{#if note.said}
		<div class="note" class:wrong={note.said.wrong}>
			<div class="says">
				<p>{note.said.text}</p>
				{#each note.said.refused ?? [] as refused, at (at)}<p class="refused">{refused}</p>{/each}
			</div>
			{#if note.said.undo}<button class="btn" onclick={() => note.takeBack()}>Undo</button>{/if}
			<button class="off" aria-label="Put this note away" onclick={() => note.close()}>✕</button>
		</div>
	{/if}
</div>

<style>
	.bar {
		position: fixed;
		z-index: 20;
		inset: auto 0 1rem 0;
		display: grid;
		justify-items: center;
		pointer-events: none;
	}
	.says {
		flex: 1;
		max-height: 40vh;
		overflow: auto;
	}
	.refused {
		font-size: 0.92rem;
	}
	.note {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		max-width: min(34rem, calc(100vw - 2rem));
		padding: 0.4rem 0.4rem 0.4rem 1rem;
		background: var(--pitch);
		color: var(--on-ink);
		border-left: 6px solid var(--marigold);
		border-radius: 3px;
		box-shadow: 0 6px 18px rgb(0 0 0 / 25%);
		pointer-events: auto;
	}
	.note.wrong {
		border-left-color: var(--oxide);
	}
	.btn,
	.off {
		min-height: 44px;
	}
	.off {
		min-width: 44px;
		border: 0;
		background: none;
		color: inherit;
	}
	/* Over the screens under the thumb. */
	@media (max-width: 640px) {
		.bar {
			bottom: 68px;
		}
	}
</style>
