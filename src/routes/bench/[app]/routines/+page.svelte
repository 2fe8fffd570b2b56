<script lang="ts">
	import { asLine, fromLine } from '$lib/core/sentence/line-values.ts'
	import type { Routine, Step } from '$lib/core/routine/routine.ts'
	import { entryOfStart, entryOfStep, STARTS, stepsAfter } from '$lib/core/routine/routine.ts'
	import type { LineValue } from '$lib/core/sentence/types.ts'
	import AddLine from '$lib/ui/sentences/AddLine.svelte'
	import { newId, useDraft } from '$lib/ui/bench/draft.svelte.ts'
	import SentenceLine from '$lib/ui/sentences/SentenceLine.svelte'

	let { data } = $props()

	const draft = useDraft()
	const routines = $derived(draft.document.routines)
	const vocabulary = $derived({ ...data.bench.vocabulary, screens: draft.document.screens, routines })

	function put(next: Routine) {
		draft.change({ ...draft.document, routines: routines.map((each) => (each.id === next.id ? next : each)) })
	}

	function add(kind: keyof typeof STARTS) {
		const table = vocabulary.tables[0]?.id
		if (table === undefined) return
		const start = STARTS[kind].begin(table)
		draft.change({ ...draft.document, routines: [...routines, { id: newId(), name: 'New routine', start, steps: [] }] })
	}

	function remove(id: string) {
		draft.change({ ...draft.document, routines: routines.filter((each) => each.id !== id) })
	}

	function addStep(routine: Routine, line: LineValue) {
		const filled: Record<string, unknown> = { ...line, id: newId() }
		if (filled['kind'] === 'set' && filled['column'] === null) {
			filled['column'] = vocabulary.tables
				.find((table) => table.id === routine.start.table)
				?.columns.find((column) => column.type !== 'computed')?.id
		}
		put({ ...routine, steps: [...routine.steps, fromLine<Step>(filled)] })
	}

	function move(routine: Routine, at: number, by: -1 | 1) {
		const steps = [...routine.steps]
		const [step] = steps.splice(at, 1)
		if (step && at + by >= 0) steps.splice(at + by, 0, step)
		if (steps.length === routine.steps.length) put({ ...routine, steps })
	}
</script>

<div class="bay">
	<header>
		<h1>Routines</h1>
		<p class="quiet">
			What happens by itself, or when a button is pressed. Each is queued with the change that starts it and runs once.
		</p>
	</header>
	{#each routines as routine (routine.id)}
		<section>
			<div class="head">
				<input
					aria-label="Name of the routine"
					value={routine.name}
					onchange={(event) => put({ ...routine, name: event.currentTarget.value || 'Routine' })}
				/>
				<button class="btn plain" onclick={() => remove(routine.id)}>Remove routine</button>
			</div>
			<SentenceLine
				kind={entryOfStart(routine.start).sentence.kind}
				line={asLine(routine)}
				{vocabulary}
				number="▸"
				onchange={(next) => put(fromLine<Routine>(next))}
			/>
			{#each routine.steps as step, i (step.id)}
				<SentenceLine
					kind={entryOfStep(step).sentence.kind}
					line={step}
					{vocabulary}
					table={routine.start.table}
					number={i + 1}
					onchange={(next) =>
						put({ ...routine, steps: routine.steps.map((each, j) => (j === i ? fromLine<Step>(next) : each)) })}
					onremove={() => put({ ...routine, steps: routine.steps.filter((_each, j) => j !== i) })}
					onmove={(to) => move(routine, i, to === 'up' ? -1 : 1)}
				/>
			{/each}
			<AddLine
				kinds={stepsAfter(routine.start).map(({ sentence }) => sentence)}
				{vocabulary}
				table={routine.start.table}
				onadd={(line) => addStep(routine, line)}
			/>
		</section>
	{:else}
		<p class="none">There is no routine yet.</p>
	{/each}
	<p class="more">
		<button class="btn" onclick={() => add('button')}>Add one that starts with a button</button>
		<button class="btn" onclick={() => add('rows')}>Add one that starts with a row</button>
	</p>
</div>

<style>
	.bay {
		max-width: 68rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.2rem 1rem;
		padding: 0.9rem 1.3rem;
	}
	section {
		border-top: 1px solid var(--pitch);
		margin-bottom: 1.5rem;
	}
	.head {
		display: flex;
		gap: 1rem;
		padding: 0.4rem 1rem 0.4rem 3.4rem;
		border-bottom: 1px solid var(--zinc-2);
	}
	.head input {
		flex: 1;
		border: 0;
		background: none;
		color: var(--pitch);
		font: 700 1.1rem var(--head);
		padding: 0.2rem 0;
	}
	.none,
	.more {
		padding: 0.5rem 1.3rem 1.5rem;
		display: flex;
		gap: 0.6rem;
		flex-wrap: wrap;
	}
</style>
