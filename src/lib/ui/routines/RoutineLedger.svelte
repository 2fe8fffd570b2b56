<script lang="ts">
	/** The start of a routine and its steps, each at its level: to be changed, moved by keys or dragged, and added to. */
	import { heldIn } from '$lib/core/routine/held-values.ts'
	import { entryOfStart, entryOfStep, type Routine } from '$lib/core/routine/routine.ts'
	import { mayHoldStep } from '$lib/core/routine/step-tree.ts'
	import { asLine, fromLine } from '$lib/core/sentence/line-values.ts'
	import type { TriedRoutine } from '$lib/core/requests/runs.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { provideHeld } from '../formula/held-here.ts'
	import AddLine from '../sentences/AddLine.svelte'
	import SentenceLine from '../sentences/SentenceLine.svelte'
	import DragLedger from '../screens/DragLedger.svelte'
	import type { RoutineEdit } from './routine-edit.svelte.ts'

	type Props = {
		edit: RoutineEdit
		routine: Routine
		/** The step that is pointed at elsewhere. */
		pointed: string
		/** What it would have come to, where it was tried. */
		tried: TriedRoutine | undefined
	}

	let { edit, routine, pointed, tried }: Props = $props()

	provideHeld(() => heldIn(routine))

	/** The table that the columns of a step are those of, and that of the row around. */
	function tablesOf(id: string) {
		const placed = edit.placed.find(({ step }) => step.id === id)
		if (!placed) return {}
		const { step, table, outer, holds } = placed
		if (entryOfStep(step).readsRows) return { table: undefined, outer: table }
		return holds === undefined ? { table, outer } : { table: holds, outer: table }
	}
</script>

{#snippet starts()}<strong>{countOf(tried?.starts ?? 0, 'start')}</strong>{/snippet}
<div class="steps">
	<SentenceLine
		kind={entryOfStart(routine.start).sentence.kind}
		line={asLine(routine)}
		vocabulary={edit.vocabulary}
		number="▸"
		onchange={(next) => edit.put(fromLine<Routine>(next))}
		{...tried && !tried.why ? { beside: starts } : {}}
	/>
	<DragLedger
		lines={routine.steps}
		mayHold={mayHoldStep}
		ondrop={(id, drop) => edit.dropStep(id, drop)}
		onfocus={(id) => (edit.current = id)}
	>
		{#snippet one({ line: step, level, number }, grab)}
			<SentenceLine
				kind={entryOfStep(step).sentence.kind}
				line={asLine(step)}
				vocabulary={edit.vocabulary}
				{...tablesOf(step.id)}
				{number}
				{level}
				marked={pointed === step.id}
				onchange={(next) => edit.putStep(step.id, next)}
				onremove={() => edit.removeStep(step.id)}
				onmove={(to) => edit.moveStep(step.id, to)}
				ongrab={grab}
				{...tried && !tried.why ? { beside: came } : {}}
			/>
			{#snippet came()}{tried?.steps[step.id] ?? '–'}{/snippet}
		{/snippet}
	</DragLedger>
</div>
<AddLine
	kinds={edit.place.kinds}
	vocabulary={edit.vocabulary}
	table={edit.tableBeside}
	where={edit.place.says}
	onadd={(line) => edit.addStep(line)}
/>

<style>
	.steps {
		--tools: 9.2rem;
	}
</style>
