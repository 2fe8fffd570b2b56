<script lang="ts">
	/** Where a file is given in: dropped, chosen, or pasted as rows. */
	import { ACCEPTED_FILES, type SourceGiving } from './give-source.svelte.ts'

	type Props = { giving: SourceGiving }

	let { giving }: Props = $props()

	let over = $state(false)

	/** A file that was chosen before this page had come to life is not forgotten. */
	function takeEarly(input: HTMLInputElement) {
		if (input.files?.[0]) void giving.take(input.files[0])
	}

	function takePaste(event: ClipboardEvent) {
		event.preventDefault()
		const text = event.clipboardData?.getData('text/plain') ?? ''
		if (text.trim() === '')
			return void (giving.wrong = 'There is no text to paste. Copy the cells in your spreadsheet first.')
		takeText(text)
	}

	/** Nor are rows that were pasted before, when the browser put them into the box. */
	function takeEarlyPaste(box: HTMLTextAreaElement) {
		if (box.value.trim() === '') return
		takeText(box.value)
		box.value = ''
	}

	/** Copied cells come as text with tabs between them: a file like any other. */
	function takeText(text: string) {
		void giving.take(new File([text], 'Pasted rows.tsv', { type: 'text/tab-separated-values' }))
	}

	function ondrop(event: DragEvent) {
		event.preventDefault()
		over = false
		void giving.take(event.dataTransfer?.files[0])
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
	class="drop"
	class:over
	{ondrop}
	ondragover={(event) => {
		event.preventDefault()
		over = true
	}}
	ondragleave={() => (over = false)}
>
	<p><strong>{giving.busy ? `Reading ${giving.busy}…` : 'Drop a file here'}</strong></p>
	<p class="quiet">
		CSV, XLSX, ODS, JSON or SQLite. You see what was read, and settle what is unclear, before anything is brought in.
	</p>
	<label class="btn main">
		Choose a file
		<input
			class="visually-hidden"
			type="file"
			accept={ACCEPTED_FILES}
			disabled={giving.busy !== ''}
			onchange={(event) => giving.take(event.currentTarget.files?.[0])}
			use:takeEarly
		/>
	</label>
	<label class="paste">
		<span class="quiet">or paste rows that you copied from a spreadsheet</span>
		<textarea class="field" rows="2" placeholder="Paste here" onpaste={takePaste} use:takeEarlyPaste></textarea>
	</label>
	{#if giving.wrong}<p class="says-wrong" role="alert">{giving.wrong}</p>{/if}
</div>

<style>
	.drop {
		border: 2px dashed var(--zinc-5);
		border-radius: 3px;
		background: var(--chalk);
		padding: 2rem;
		display: grid;
		gap: 0.7rem;
		justify-items: start;
	}
	.drop.over {
		border-color: var(--pitch);
		background: var(--marigold-wash);
	}
	.paste {
		display: grid;
		gap: 0.3rem;
		width: min(26rem, 100%);
	}
	.drop:focus-within .btn {
		outline: 3px solid var(--marigold);
	}
</style>
