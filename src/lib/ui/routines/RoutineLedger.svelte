<script lang="ts">
	/** The start of a routine and its steps, each at its level: to be changed, moved by keys or dragged, and added to. */
	import { entryOfStart, entryOfStep, type Routine, type Step } from '$lib/core/routine/routine.ts'
	import { mayHoldStep, type PlacedStep } from '$lib/core/routine/step-tree.ts'
	import { asLine, fromLine } from '$lib/core/sentence/line-values.ts'
	import type { TriedRoutine } from '$lib/core/requests/runs.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import AddLine from '../sentences/AddLine.svelte'
	import SentenceLine from '../sentences/SentenceLine.svelte'
	import { DragLine, LEVEL } from '../screens/drag-line.svelte.ts'
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

	const drag = new DragLine()
	let ledger: HTMLElement

	const isOver = (step: Step) => entryOfStep(step).goesThrough

	/** The table that its columns are those of, and that of the row around. */
	function tablesOf({ step, table, outer, holds }: PlacedStep) {
		if (isOver(step)) return { table: undefined, outer: table }
		return holds === undefined ? { table, outer } : { table: holds, outer: table }
	}

	function letGo() {
		const dropped = drag.end()
		if (dropped) edit.dropStep(dropped.id, dropped.drop)
	}
</script>

<svelte:window
	onpointermove={(event) => drag.move(event, ledger, routine.steps, mayHoldStep)}
	onpointerup={letGo}
	onpointercancel={() => drag.cancel()}
	onkeydown={(event) => event.key === 'Escape' && drag.cancel()}
/>

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
	<div class="ledger" class:dragging={drag.id !== ''} bind:this={ledger}>
		{#each edit.placed as placed (placed.step.id)}
			{@const { step, level, number, within } = placed}
			<div
				data-line={step.id}
				class:lifted={step.id === drag.id || within.some(({ id }) => id === drag.id)}
				onfocusin={() => (edit.current = step.id)}
			>
				<SentenceLine
					kind={entryOfStep(step).sentence.kind}
					line={asLine(step)}
					vocabulary={edit.vocabulary}
					{...tablesOf(placed)}
					{number}
					{level}
					marked={pointed === step.id}
					onchange={(next) => edit.putStep(step.id, next)}
					onremove={() => edit.removeStep(step.id)}
					onmove={(to) => edit.moveStep(step.id, to)}
					ongrab={(event) => drag.begin(event, step.id, level)}
					{...tried && !tried.why ? { beside: came } : {}}
				/>
				{#snippet came()}{tried?.steps[step.id] ?? '–'}{/snippet}
			</div>
		{/each}
		{#if drag.over}
			<div class="gap" style:top="{drag.over.top}px" style:left="{40 + drag.over.drop.level * LEVEL}px"></div>
		{/if}
	</div>
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
	.ledger {
		position: relative;
	}
	.dragging {
		cursor: grabbing;
		user-select: none;
	}
	.lifted {
		opacity: 0.45;
	}
	/* Where the step would go, beginning at its level. */
	.gap {
		position: absolute;
		right: 0;
		height: 4px;
		margin-top: -2px;
		background: var(--marigold);
		pointer-events: none;
	}
</style>
