<script lang="ts" generics="V">
	/** One of a few, each a button. */
	import type { Choice } from '$lib/core/sentence/slots/entry.ts'

	type Props = { choices: readonly Choice<V>[]; value: V; onchoose: (value: V) => void }

	let { choices, value, onchoose }: Props = $props()

	/** Values are small and made anew: what they hold counts. */
	const isOn = (each: V) => JSON.stringify(each) === JSON.stringify(value)
</script>

<div class="choices">
	{#each choices as choice, i (i)}
		<button class:on={isOn(choice.value)} onclick={() => onchoose(choice.value)}>{choice.text}</button>
	{/each}
</div>

<style>
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 0.35rem;
	}
	.choices + :global(.choices) {
		margin-top: 0.5rem;
	}
	button {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
		padding: 0.3rem 0.6rem;
	}
	button:hover {
		border-color: var(--pitch);
	}
	button.on {
		background: var(--marigold-wash);
		border-color: var(--pitch);
		font-weight: 700;
	}
</style>
