<script lang="ts">
	/** What the function takes that one is in the middle of writing. */
	import { callAt } from '$lib/core/formula/syntax/caret.ts'
	import { FUNCTION_NOTES } from '$lib/core/formula/functions/table.ts'

	type Props = { text: string; caret: number }

	let { text, caret }: Props = $props()

	const call = $derived(callAt(text, caret))
	const note = $derived(FUNCTION_NOTES.find((each) => each.name === call?.name))
</script>

{#if note}
	<p><span class="mono">{note.signature}</span> <span class="quiet">{note.doc}</span></p>
{/if}

<style>
	p {
		margin: 0.3rem 0 0;
	}
</style>
