<script lang="ts">
	/** An answer in the visitor's own words or figures. */
	import type { ShownEntry } from '$lib/core/requests/screens.ts'
	import CellField from '../../cells/CellField.svelte'
	import { optionsAt } from '../../cells/options.ts'
	import type { StepsState } from './steps-state.svelte.ts'

	type Props = { steps: StepsState; entry: ShownEntry; question: string; base: string }

	let { steps, entry, question, base }: Props = $props()

	// The question itself is its name.
	const column = $derived({ ...steps.form.columnOf(entry), name: question })
</script>

<form
	onsubmit={(event) => {
		event.preventDefault()
		void steps.goOn()
	}}
>
	<CellField
		{column}
		draft={steps.form.draftAt(entry)}
		message={undefined}
		help=""
		sample=""
		options={optionsAt(base)}
		onchange={(draft) => steps.form.change(entry, draft)}
	/>
	<button class="btn main" disabled={steps.isBusy}>Next</button>
</form>

<style>
	form {
		display: grid;
		gap: 0.9rem;
		max-width: 40rem;
	}
	/* It stands over it in large letters. */
	form :global(label) {
		position: absolute;
		clip-path: inset(50%);
	}
	form :global(.field) {
		font-size: 1.25rem;
		min-height: 56px;
	}
	.btn {
		justify-self: start;
		min-height: 56px;
		min-width: 9rem;
		font-size: 1.15rem;
	}
</style>
