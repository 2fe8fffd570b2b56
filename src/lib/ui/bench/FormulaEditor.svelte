<script lang="ts">
	/** A formula with what it comes to, worked out as one types. */
	import { page } from '$app/state'
	import { tick, untrack } from 'svelte'
	import type { BenchTable } from '$lib/server/workspace/bench.ts'
	import { send } from '../send.ts'
	import FormulaHints from './FormulaHints.svelte'

	type Issue = { message: string; span: { from: number; to: number } }
	type Trial = {
		issues: readonly Issue[]
		rows?: number
		of?: number
		people?: readonly { name: string; rows: number }[]
		sample?: string
		result?: string
		kept?: boolean
		dependsOn?: readonly string[]
		registered?: readonly string[]
	}
	type Props = {
		value: string
		table: number | undefined
		/** Whether it must be true or not; otherwise it gives a value. */
		condition: boolean
		me: boolean
		empty?: string | undefined
		onchange: (value: string) => void
	}

	let { value, table, condition, me, empty, onchange }: Props = $props()

	const id = $props.id()
	let text = $state(untrack(() => value))
	let caret = $state(0)
	let box = $state<HTMLTextAreaElement>()
	let trial = $state<Trial | undefined>()
	let timer: ReturnType<typeof setTimeout> | undefined
	let asked = 0

	async function test() {
		const mine = ++asked
		const answer = await send<Trial>('/bench/try', { kind: condition ? 'condition' : 'formula', table, text, me })
		if (mine === asked && answer.ok) trial = answer.value
	}

	/** Columns and sets of the row that the formula stands on. */
	const names = $derived.by(() => {
		const bench = page.data['bench'] as { tables?: readonly BenchTable[] } | undefined
		const own = bench?.tables?.find((each) => each.id === table)
		return own ? [...own.columns.map((column) => column.name), ...own.reverses] : []
	})

	function typed(event: Event) {
		const box = event.currentTarget as HTMLTextAreaElement
		caret = box.selectionStart
		change(box.value)
	}

	function change(next: string) {
		text = next
		clearTimeout(timer)
		timer = setTimeout(() => {
			void test()
			onchange(text)
		}, 350)
	}

	// Shows at once what the formula that stands there comes to.
	$effect(() => {
		void untrack(test)
		return () => {
			clearTimeout(timer)
			if (untrack(() => text) !== untrack(() => value)) onchange(text)
		}
	})

	async function pick(next: string, at: number) {
		change(next)
		caret = at
		await tick()
		box?.focus()
		box?.setSelectionRange(at, at)
	}

	/** The arrow down goes from the text to the names that go on from it. */
	function onkeydown(event: KeyboardEvent) {
		if (event.key !== 'ArrowDown') return
		const first = box?.parentElement?.querySelector<HTMLElement>('ul[aria-label] button')
		if (!first) return
		event.preventDefault()
		first.focus()
	}

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

<label class="visually-hidden" for={id}>Formula</label>
<textarea
	{id}
	class="field formula"
	rows="2"
	spellcheck="false"
	bind:this={box}
	use:focus
	value={text}
	onkeyup={() => (caret = box?.selectionStart ?? 0)}
	onclick={() => (caret = box?.selectionStart ?? 0)}
	{onkeydown}
	oninput={typed}
	aria-invalid={(trial?.issues.length ?? 0) > 0}
	placeholder={empty}></textarea>
<FormulaHints {text} {caret} {names} onpick={pick} />
{#each trial?.issues ?? [] as issue (issue.message)}
	<p class="says-wrong">{issue.message}</p>
	{#if issue.span.to > issue.span.from}<p class="mono place">
			{text.slice(0, issue.span.from)}<mark>{text.slice(issue.span.from, issue.span.to)}</mark>{text.slice(
				issue.span.to
			)}
		</p>{/if}
{/each}
{#if trial && trial.issues.length === 0}
	<dl>
		{#if trial.rows !== undefined}
			<dt>Rows that match now</dt>
			<dd>{trial.rows} of {trial.of}</dd>
		{/if}
		{#each trial.people ?? [] as person (person.name)}
			<dt>{person.name} would see</dt>
			<dd>{person.rows}</dd>
		{/each}
		{#if trial.result !== undefined}
			<dt>For {trial.sample}</dt>
			<dd>{trial.result}</dd>
			<dt>Worked out</dt>
			<dd>{trial.kept ? 'when the row changes, and kept' : 'in the database, whenever it is read'}</dd>
			{#if trial.dependsOn && trial.dependsOn.length > 0}
				<dt>Reads</dt>
				<dd>{trial.dependsOn.join(', ')}</dd>
			{/if}
			{#if trial.registered && trial.registered.length > 0}
				<dt>Runs as code, not SQL</dt>
				<dd class="mono">{trial.registered.join(' ')}</dd>
			{/if}
		{/if}
	</dl>
{/if}

<style>
	dl {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0.15rem 1rem;
		margin: 0.5rem 0 0;
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		margin: 0;
		font-weight: 700;
		text-align: right;
	}
	.place {
		white-space: pre-wrap;
	}
	mark {
		background: var(--oxide-wash);
		color: var(--oxide);
	}
</style>
