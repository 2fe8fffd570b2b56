<script lang="ts">
	/** A box for codes. A scanner types into it and presses Enter; it keeps the focus, so that the next can be scanned at once. */
	import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { usePressNote } from '../press-note.svelte.ts'

	type Props = { line: Extract<ShownLine, { kind: 'scan' }>; path: ScreenPath }

	let { line, path }: Props = $props()

	const id = $props.id()
	const note = usePressNote()
	let code = $state('')
	let busy = $state(false)
	let box: HTMLInputElement

	async function send(event: SubmitEvent) {
		event.preventDefault()
		const scanned = code.trim()
		if (scanned === '' || busy) return
		busy = true
		const isDone = await note.scan(path, { line: line.id, code: scanned })
		busy = false
		if (isDone) code = ''
		box.focus()
		// What was refused is typed over by the next.
		box.select()
	}
</script>

<form onsubmit={send}>
	<label for={id}>{line.label}</label>
	<input
		{id}
		class="field mono"
		bind:this={box}
		bind:value={code}
		readonly={busy}
		maxlength="200"
		autocomplete="off"
		autocapitalize="characters"
		spellcheck="false"
		enterkeyhint="go"
	/>
	<button class="btn main" disabled={busy}>{busy ? 'Looking…' : 'Go'}</button>
</form>

<style>
	form {
		display: grid;
		grid-template-columns: minmax(0, 24rem) auto;
		align-items: center;
		justify-content: start;
		gap: 0.2rem 0.6rem;
		padding: 0.5rem 1.2rem;
	}
	label {
		grid-column: 1 / -1;
		font-weight: 600;
	}
	.field,
	.btn {
		min-height: 48px;
	}
	.field {
		font-size: 1.15rem;
	}
	@media (max-width: 640px) {
		form {
			grid-template-columns: minmax(0, 1fr) auto;
		}
	}
</style>
