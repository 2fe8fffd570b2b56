<script lang="ts">
	/** Adds a line by typing what it should do, or by choosing a kind. */
	import { parseLine } from '$lib/core/sentence/parse.ts'
	import type { LineValue, Sentence } from '$lib/core/sentence/types.ts'
	import { firstWords } from '$lib/core/sentence/parse.ts'
	import { printText } from '$lib/core/sentence/print.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import { isTyping } from '../typing.ts'

	type Props = {
		kinds: readonly Sentence[]
		vocabulary: Vocabulary
		/** The table whose columns it means, where its own sentence names none. */
		table?: number | undefined
		/** Lines for words that are no sentence. */
		propose?: (text: string) => readonly LineValue[]
		/** Where it will stand, in words. */
		where?: string
		onadd: (line: LineValue) => void
	}

	let { kinds, vocabulary, table, where = '', propose, onadd }: Props = $props()

	let text = $state('')
	let wrong = $state('')
	let input: HTMLInputElement

	const proposals = $derived(
		text.trim().length < 3 || parseLine(text, kinds, vocabulary, table).ok
			? []
			: (propose?.(text) ?? []).flatMap((line) => {
					const sentence = kinds.find(({ kind }) => kind.kind === line['kind'])
					return sentence ? [{ line, says: printText(sentence.kind, line, vocabulary, table) }] : []
				})
	)

	function take(line: LineValue) {
		text = wrong = ''
		onadd(line)
		input.focus()
	}

	function add(event: SubmitEvent) {
		event.preventDefault()
		if (text.trim() === '') return
		const parsed = parseLine(text, kinds, vocabulary, table)
		if (!parsed.ok) return void (wrong = parsed.message)
		wrong = ''
		text = ''
		onadd(parsed.line)
	}

	function onkeydown(event: KeyboardEvent) {
		// In the box itself, empty, it asks for what is there already, and is no part of the sentence.
		const isHere = event.target === input && text === ''
		if (event.key !== '/' || (isTyping(event) && !isHere)) return
		event.preventDefault()
		input.focus()
	}
</script>

<svelte:window {onkeydown} />

<form class="add" onsubmit={add}>
	<div class="margin">+</div>
	<div class="body">
		<input
			bind:this={input}
			class="typed"
			bind:value={text}
			aria-label="Add a line by typing what it should do"
			placeholder="Press / and type what the line should do{where ? `, ${where}` : ''}, or choose:"
		/>
		{#if proposals.length > 0}
			<ul aria-label="Lines for these words">
				{#each proposals as { line, says } (says)}
					<li><button type="button" onclick={() => take(line)}>{says}</button></li>
				{/each}
			</ul>
		{/if}
		<p class="kinds">
			{#each kinds as sentence (sentence.kind.kind)}
				<button type="button" title={sentence.kind.about} onclick={() => onadd(sentence.blank)}
					>{firstWords(sentence.kind)}{sentence.kind.offer ? '' : '…'}</button
				>
			{/each}
		</p>
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	</div>
</form>

<style>
	.add {
		display: grid;
		grid-template-columns: 40px 1fr;
		border-bottom: 1px solid var(--zinc-2);
	}
	.margin {
		background: var(--limewash);
		color: var(--zinc-5);
		text-align: center;
		padding-top: 0.7rem;
	}
	.body {
		padding: 0.5rem 0.9rem;
	}
	.typed {
		border: 0;
		background: none;
		color: var(--pitch);
		font: inherit;
		padding: 0.35rem 0.4rem;
		margin: 0 -0.4rem 0.45rem;
		width: calc(100% + 0.8rem);
		box-shadow: none;
	}
	/* Inside its own room: the offers stand close below. */
	.typed:focus-visible {
		outline-offset: -3px;
	}
	.typed::placeholder {
		color: var(--zinc-5);
		opacity: 1;
	}
	ul {
		list-style: none;
		margin: 0 0 0.5rem;
		padding: 0;
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		background: var(--paper);
	}
	ul button {
		width: 100%;
		padding: 0.45rem 0.7rem;
		border: 0;
		border-bottom: 1px solid var(--zinc-2);
		background: none;
		color: var(--pitch);
		font: inherit;
		text-align: left;
	}
	ul button:hover,
	ul button:focus-visible {
		background: var(--selected);
	}
	.kinds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
	}
	.kinds button {
		border: 1px dashed var(--zinc-5);
		border-radius: 3px;
		background: none;
		color: var(--zinc-7);
		font: inherit;
		font-size: 0.88rem;
		padding: 0.1rem 0.5rem;
	}
	.kinds button:hover {
		border-style: solid;
		color: var(--pitch);
	}
</style>
