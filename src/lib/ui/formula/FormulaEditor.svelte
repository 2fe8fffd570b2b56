<script lang="ts">
	/** A formula with what it comes to, worked out as one types. */
	import { page } from '$app/state'
	import { untrack } from 'svelte'
	import type { Attachment } from 'svelte/attachments'
	import type { Issue } from '$lib/core/model/formula.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { printName } from '$lib/core/formula/check/rename.ts'
	import { send } from '../send.ts'
	import { openFormulaBox, type FormulaBox } from './formula-box.ts'
	import { useHeld } from './held-here.ts'
	import NamedConditions from './NamedConditions.svelte'
	import SignatureNote from './SignatureNote.svelte'
	import type { Trial } from './trial.ts'
	import TrialNote from './TrialNote.svelte'

	type Props = {
		value: string
		table: number | undefined
		/** The tables of the rows around its own, the outermost first. */
		around?: readonly number[]
		/** Whether it must be true or not; otherwise it gives a value. */
		condition: boolean
		me: boolean
		empty?: string | undefined
		onchange: (value: string) => void
	}

	let { value, table, around = [], condition, me, empty, onchange }: Props = $props()

	const held = useHeld()
	let text = $state(untrack(() => value))
	let caret = $state(0)
	let box: FormulaBox | undefined
	let trial = $state<Trial | undefined>()
	let timer: ReturnType<typeof setTimeout> | undefined
	let asked = 0

	async function test() {
		if (table === undefined) return
		const mine = ++asked
		const here = { table, text, around, here: held() }
		const asks = condition ? ({ kind: 'condition', ...here, me } as const) : ({ kind: 'formula', ...here } as const)
		const answer = await send('POST', '/bench/try', asks)
		if (mine !== asked || !answer.ok) return
		trial = answer.value
		box?.setIssues(trial.issues)
	}

	const own = $derived.by(() => {
		// Pages of the Bench have it; others have none.
		const bench = page.data['bench'] as { tables?: readonly BenchTable[] } | undefined
		return bench?.tables?.find((each) => each.id === table)
	})
	/** Of the row that it stands on, and of its screen. */
	const names = $derived([
		...(own ? [...own.columns.map((column) => column.name), ...own.backReferences] : []),
		...Object.keys(held()).map((name) => `here.${name}`)
	])

	/** A named condition is put in where nothing stands, and joined to what does. */
	function useNamed(name: string) {
		const written = printName(name)
		box?.set(text.trim() === '' ? written : `${text.trim()} and ${written}`)
		box?.focus()
	}

	function mend(to: Issue['mend']) {
		if (!to) return
		box?.set(text.slice(0, to.span.from) + to.text + text.slice(to.span.to))
		box?.focus()
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

	const write: Attachment<HTMLElement> = (host) => {
		box = openFormulaBox(host, {
			text: untrack(() => text),
			names: untrack(() => names),
			label: 'Formula',
			empty: untrack(() => empty ?? ''),
			onchange: change,
			oncaret: (at) => (caret = at)
		})
		box.focus()
		return () => box?.close()
	}

	$effect(() => box?.setNames(names))
</script>

<div {@attach write}></div>
{#if condition}<NamedConditions columns={own?.columns ?? []} onuse={useNamed} />{/if}
<SignatureNote {text} {caret} />
{#each trial?.issues ?? [] as issue (issue.message)}
	<p class="says-wrong">
		{issue.message}
		{#if issue.mend}<button type="button" class="btn" onclick={() => mend(issue.mend)}>{issue.mend.says}</button>{/if}
	</p>
{/each}
{#if trial?.issues.length === 0}<TrialNote {trial} />{/if}
