/**
 * How a routine goes on: where it stands is a stack, kept with the run, and what comes next follows from that alone.
 * Nothing is replayed from the start, so one that has gone through 100,000 rows goes on at once after a stop.
 *
 * Pure: whoever runs it does what a step says and tells what it came to.
 */
import { isDecided, linesOf, type Step } from './routine.ts'

/** One open list of steps: which of them comes next, and on which row. */
export interface Frame {
	readonly at: number
	/** The number of the row at hand; none after a clock. */
	readonly row: number | null
	/** Whether the last "If" of this list held. */
	readonly held?: boolean
	/** Where a step that goes through rows is, while it does: the last that was taken, and the last there is. */
	readonly each?: Cursor
}

export interface Cursor {
	readonly last: number
	readonly upto: number
	/** How many were taken. */
	readonly done: number
}

/** The outermost list first. Empty once the routine has ended. */
export type Stack = readonly Frame[]

/** Where a routine begins. */
export function beginStack(row: number | null): Stack {
	return [{ at: 0, row }]
}

/** What a step came to. */
export type Outcome =
	/** It did what it does, and so many of its list with it. */
	| { readonly kind: 'done'; readonly many: number }
	/** An "If" that holds or not, an "Otherwise" that is gone into or not, an answer that is there or will not come. */
	| { readonly kind: 'held'; readonly held: boolean }
	/** The next row of a set; none when all are through. `upto`: the last there is, said at the first. */
	| { readonly kind: 'row'; readonly row: number | undefined; readonly upto: number }
	/** It waits for something, and is looked at again. */
	| { readonly kind: 'stays' }
	| { readonly kind: 'stop' }

export interface Standing {
	readonly step: Step
	/** The list that it stands in, and what comes after it there. */
	readonly frame: Frame
	readonly following: readonly Step[]
	/** The row around the row at hand, as `this` means it. */
	readonly outer: number | null
	/** The table of the row at hand, where a step that goes through rows was gone into. */
	readonly through: Extract<Step, { kind: 'each' }> | undefined
	/** The same of the row around it. */
	readonly outerThrough: Extract<Step, { kind: 'each' }> | undefined
}

/** The step that comes next; undefined where the routine has ended. */
export function standingAt(steps: readonly Step[], stack: Stack): Standing | undefined {
	let list = steps
	const passed: { readonly step: Step; readonly frame: Frame }[] = []
	for (const frame of stack) {
		const step = list[frame.at]
		if (!step) return undefined
		passed.push({ step, frame })
		list = linesOf(step)
	}
	const last = passed.at(-1)
	if (!last) return undefined
	const throughs = passed.slice(0, -1).flatMap(({ step, frame }) => (step.kind === 'each' ? [{ step, frame }] : []))
	const [inner, around] = [throughs.at(-1), throughs.at(-2)]
	return {
		...last,
		following: listAt(steps, stack).slice(last.frame.at + 1),
		outer: inner?.frame.row ?? null,
		through: inner?.step,
		outerThrough: around?.step
	}
}

/** The stack after a step came to something; lists that are through are left. */
export function after(steps: readonly Step[], stack: Stack, outcome: Outcome): Stack {
	const frame = stack.at(-1)
	if (!frame || outcome.kind === 'stop') return []
	const outer = stack.slice(0, -1)
	const next = (many = 1, more: Partial<Frame> = {}): Stack => [
		...outer,
		{ row: frame.row, at: frame.at + many, ...more }
	]
	switch (outcome.kind) {
		case 'stays':
			return stack
		case 'done':
			return leave(steps, next(outcome.many))
		case 'held': {
			if (outcome.held) return leave(steps, [...outer, { ...frame, held: true }, { at: 0, row: frame.row }])
			const step = listAt(steps, stack)[frame.at]
			// Of an "Otherwise" that was passed over nothing follows for another.
			return leave(steps, next(1, step && isDecided(step) ? { held: false } : {}))
		}
		case 'row': {
			if (outcome.row === undefined) return leave(steps, next())
			const each = { last: outcome.row, upto: outcome.upto, done: (frame.each?.done ?? 0) + 1 }
			return leave(steps, [...outer, { ...frame, each }, { at: 0, row: outcome.row }])
		}
	}
}

/** Out of every list that is through: to the next row of a set, else to what comes after the step that held it. */
function leave(steps: readonly Step[], stack: Stack): Stack {
	const frame = stack.at(-1)
	if (!frame) return []
	const list = listAt(steps, stack)
	if (frame.at < list.length) return stack
	const outer = stack.slice(0, -1)
	const holder = outer.at(-1)
	if (!holder) return []
	const step = listAt(steps, outer)[holder.at]
	if (step?.kind === 'each') return outer
	// What stood in an "If" was done, so an "Otherwise" after it is passed over.
	return leave(steps, [...outer.slice(0, -1), { row: holder.row, at: holder.at + 1, held: holder.held ?? true }])
}

function listAt(steps: readonly Step[], stack: Stack): readonly Step[] {
	return stack.slice(0, -1).reduce<readonly Step[]>((list, { at }) => {
		const step = list[at]
		return step ? linesOf(step) : []
	}, steps)
}
