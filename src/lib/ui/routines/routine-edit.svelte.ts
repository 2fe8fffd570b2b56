/** What a builder does to the routines of a draft: which one is open, which step has the focus, and every change of its steps. */
import { dropLine, type Drop } from '$lib/core/app/lines/drop-line.ts'
import { placeAmong } from '$lib/core/app/lines/place-among.ts'
import { insertLine, moveLine, replaceLine, type Direction } from '$lib/core/app/lines/tree.ts'
import { tablesOf } from '$lib/core/app/walk-app.ts'
import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
import { vocabularyOf, type Names } from '$lib/core/app/printed.ts'
import { beginStep, sentencesOfSteps } from '$lib/core/routine/new-step.ts'
import { SCANNED } from '$lib/core/routine/scan-start.ts'
import { STARTS, tableOfStart, type Routine, type Start, type Step } from '$lib/core/routine/routine.ts'
import { mayHoldStep, placedSteps } from '$lib/core/routine/step-tree.ts'
import { fromLine } from '$lib/core/sentence/line-values.ts'
import type { LineValue } from '$lib/core/sentence/types.ts'
import { newId, type DraftState } from '../bench/draft.svelte.ts'

const isDate = ({ type, shows }: { readonly type?: string; readonly shows?: string }) => (shows ?? type) === 'date'

const isScanned = ({ type, shows }: { readonly type: string; readonly shows?: string }) =>
	shows === undefined && SCANNED.includes(type)

export class RoutineEdit {
	readonly draft: DraftState
	private readonly names: () => Names
	/** The routine that is open, by its id; the first where it is blank or gone. */
	chosen = $state('')
	/** The step that had the focus last: new ones go beside it. */
	current = $state('')

	readonly routines = $derived.by(() => this.draft.document.routines)
	readonly routine = $derived.by(() => this.routines.find((each) => each.id === this.chosen) ?? this.routines[0])
	readonly placed = $derived.by(() => (this.routine ? placedSteps(this.routine) : []))
	readonly vocabulary = $derived.by(() => vocabularyOf(this.draft.document, this.names()))
	/** Where a new step goes. */
	readonly place = $derived.by(() => {
		const { routine } = this
		const sentencesWithin = routine ? sentencesOfSteps(routine) : () => []
		return placeAmong<Step>(routine?.steps ?? [], this.current, { mayHold: mayHoldStep, sentencesWithin })
	})
	/** The table whose columns a new step beside the current one means. */
	readonly tableBeside = $derived.by(() => {
		const beside = this.placed.find(({ step }) => step.id === this.current)
		return beside ? (beside.holds ?? beside.table) : this.routine && tableOfStart(this.routine.start)
	})

	constructor(draft: DraftState, names: () => Names) {
		this.draft = draft
		this.names = names
	}

	put(next: Routine): void {
		const routines = this.routines.map((each) => (each.id === next.id ? next : each))
		this.draft.change({ ...this.draft.document, routines })
	}

	add(kind: Start['kind']): void {
		const table = this.tableFor(kind)
		if (!table) return
		const start = STARTS[kind].begin(table.id)
		const dated = start.kind === 'due' ? { ...start, column: table.columns.find(isDate)?.id ?? 1 } : start
		const begun = dated.kind === 'scan' ? { ...dated, column: table.columns.find(isScanned)?.id ?? 1 } : dated
		const routine: Routine = { id: newId(), name: 'New routine', start: begun, steps: [] }
		this.draft.change({ ...this.draft.document, routines: [...this.routines, routine] })
		this.chosen = routine.id
	}

	/** The table that the app is most about; with a date where it goes by one. */
	private tableFor(kind: Start['kind']): Vocabulary['tables'][number] | undefined {
		const named = tablesOf(this.draft.document).map(({ table }) => table)
		const times = (id: number) => named.filter((each) => each === id).length
		const { tables } = this.vocabulary
		const fitting = kind === 'due' ? tables.filter(({ columns }) => columns.some(isDate)) : tables
		return fitting.toSorted((one, other) => times(other.id) - times(one.id))[0]
	}

	remove(id: string): void {
		this.draft.change({ ...this.draft.document, routines: this.routines.filter((each) => each.id !== id) })
	}

	addStep(typed: LineValue): void {
		const { routine } = this
		if (!routine) return
		const kind = String(typed['kind'])
		const within = this.place.withinFor(kind)
		const step = beginStep(typed, { id: newId(), vocabulary: this.vocabulary, routine, within })
		const spot = this.place.spotFor(kind)
		this.changeSteps((steps) => insertLine(steps, step, spot))
		this.current = step.id
	}

	/** What a sentence of the step's kind came to is a step of that kind. */
	putStep(id: string, next: LineValue): void {
		this.changeSteps((steps) => replaceLine(steps, id, fromLine<Step>(next)))
	}

	removeStep(id: string): void {
		this.changeSteps((steps) => replaceLine(steps, id, undefined))
	}

	moveStep(id: string, to: Direction): void {
		this.changeSteps((steps) => moveLine(steps, id, to, mayHoldStep))
	}

	dropStep(id: string, drop: Drop): void {
		this.changeSteps((steps) => dropLine(steps, id, drop))
	}

	private changeSteps(change: (steps: readonly Step[]) => Step[]): void {
		if (this.routine) this.put({ ...this.routine, steps: change(this.routine.steps) })
	}
}
