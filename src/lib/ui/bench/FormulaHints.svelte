<script lang="ts">
	/** What goes on from what is being written, and what the function takes that one is in the middle of. */
	import { callAt, completionsAt } from '$lib/core/formula/caret.ts'
	import { FUNCTION_NOTES } from '$lib/core/formula/functions/table.ts'
	import { printName } from '$lib/core/formula/rename.ts'

	type Props = {
		text: string
		caret: number
		/** Columns and sets that may stand here. */
		names: readonly string[]
		onpick: (text: string, caret: number) => void
	}

	let { text, caret, names, onpick }: Props = $props()

	const functions = FUNCTION_NOTES.map((note) => note.name)
	const known = $derived(new Set(names))
	const completions = $derived(completionsAt(text, caret, [...names, ...functions]))
	const call = $derived(callAt(text, caret))
	const note = $derived(FUNCTION_NOTES.find((each) => each.name === call?.name))

	function pick(name: string, from: number) {
		const written = known.has(name) ? printName(name) : `${name}(`
		onpick(text.slice(0, from) + written + text.slice(caret), from + written.length)
	}
</script>

{#if completions.length > 0}
	<ul aria-label="Names that go on from here">
		{#each completions as { name, from } (name)}
			<li>
				<button type="button" onmousedown={(event) => event.preventDefault()} onclick={() => pick(name, from)}>
					<span class="mono">{name}</span>
					<span class="quiet"
						>{known.has(name) ? '' : (FUNCTION_NOTES.find((each) => each.name === name)?.doc ?? '')}</span
					>
				</button>
			</li>
		{/each}
	</ul>
{:else if note}
	<p><span class="mono">{note.signature}</span> <span class="quiet">{note.doc}</span></p>
{/if}

<style>
	ul {
		margin: 0.2rem 0 0;
		padding: 0.2rem 0;
		list-style: none;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
	button {
		display: flex;
		gap: 0.8rem;
		width: 100%;
		padding: 0.25rem 0.6rem;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
	}
	button:hover,
	button:focus-visible {
		background: var(--marigold-wash);
	}
	button .quiet {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	p {
		margin: 0.3rem 0 0;
		font-size: 0.92rem;
	}
</style>
