<script lang="ts">
	import { showFigure } from '../count.ts'
	/** Finds a text in any column, and replaces it in the column where one stands. */
	type Props = {
		/** The column that a replacement would change, by name; undefined where it cannot be changed. */
		column: string | undefined
		/** How many rows hold it; undefined where that is not known (yet). */
		found: number | undefined
		onfind: (text: string) => void
		onreplace: (text: string, by: string) => void
		onclose: () => void
	}

	let { column, found, onfind, onreplace, onclose }: Props = $props()

	let text = $state('')
	let by = $state('')
	let timer: ReturnType<typeof setTimeout> | undefined

	function typed() {
		clearTimeout(timer)
		timer = setTimeout(() => onfind(text), 250)
	}

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

<form
	onsubmit={(event) => {
		event.preventDefault()
		onfind(text)
	}}
>
	<label>Find <input class="field" use:focus bind:value={text} oninput={typed} /></label>
	<span class="quiet" role="status"
		>{text.trim() === '' || found === undefined ? '' : `${showFigure(found)} ${found === 1 ? 'row' : 'rows'}`}</span
	>
	<label>Replace by <input class="field" bind:value={by} /></label>
	<button
		type="button"
		class="btn"
		disabled={text.trim() === '' || column === undefined || !found}
		onclick={() => onreplace(text, by)}>Replace in {column ?? 'a column'}</button
	>
	<button type="button" class="btn plain" onclick={onclose}>Close</button>
</form>

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem 0.8rem;
		padding: 0.4rem 1.2rem;
		background: var(--limewash);
	}
	label {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	.field {
		width: 12rem;
	}
</style>
