<script lang="ts">
	/** A few choices side by side, as one ruled strip, and "all" before them. */
	type Props = {
		/** Unlike any other on the page. */
		name: string
		options: readonly { readonly value: string; readonly text: string }[]
		/** Blank for all. */
		chosen: string
		onchoose: (value: string) => void
	}

	let { name, options, chosen, onchoose }: Props = $props()

	const all = $derived([{ value: '', text: 'all' }, ...options])
</script>

<span class="strip">
	{#each all as { value, text } (value)}
		<label class:on={value === chosen}>
			<input type="radio" {name} {value} checked={value === chosen} onchange={() => onchoose(value)} />{text}
		</label>
	{/each}
</span>

<style>
	.strip {
		display: flex;
		flex-wrap: wrap;
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		background: var(--paper);
		overflow: hidden;
	}
	label {
		position: relative;
		display: grid;
		place-items: center;
		min-height: 46px;
		padding: 0.2rem 0.9rem;
		cursor: pointer;
	}
	label + label {
		border-left: 1px solid var(--zinc-3);
	}
	label.on {
		background: var(--selected);
		font-weight: 650;
		box-shadow: inset 0 -4px 0 var(--marigold);
	}
	input {
		position: absolute;
		inset: 0;
		opacity: 0;
		cursor: pointer;
	}
	label:focus-within {
		outline: 3px solid var(--focus, var(--sea));
		outline-offset: -3px;
	}
</style>
