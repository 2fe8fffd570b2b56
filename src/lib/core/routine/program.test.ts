import fc from 'fast-check'
import { expect, test } from 'vitest'
import { after, beginStack, standingAt, type Outcome, type Stack } from './program.ts'
import type { Step } from './routine.ts'

/** What a program did: the ids of its steps with the row that each stood on. */
type Done = string[]

interface World {
	/** Whether the condition of a step holds on a row. */
	readonly holds: (id: string, row: number) => boolean
	/** The rows of a set, rising. */
	readonly rows: (id: string, row: number) => readonly number[]
}

const MOST_DONE = 3_000

/** One after the other, from wherever the stack stands; `interrupt` says after which effects all but the stack is lost. */
function run(steps: readonly Step[], world: World, interrupt: (nth: number) => boolean = () => false): Done {
	const done: Done = []
	let stack: Stack = beginStack(1)
	for (let nth = 0; nth < MOST_DONE; nth++) {
		const standing = standingAt(steps, stack)
		if (!standing) return done
		const { step, frame } = standing
		const row = frame.row ?? 0
		const outcome = outcomeOf(step, { row, held: frame.held, each: frame.each, world, done, nth })
		const next = after(steps, stack, outcome)
		// What is kept is text.
		stack = interrupt(nth) ? (JSON.parse(JSON.stringify(next)) as Stack) : next
	}
	return done
}

interface Looking {
	readonly row: number
	readonly held?: boolean | undefined
	readonly each?: { readonly last: number; readonly upto: number } | undefined
	readonly world: World
	readonly done: Done
	/** How often something was looked at before. */
	readonly nth: number
}

function outcomeOf(step: Step, { row, held, each, world, done, nth }: Looking): Outcome {
	if (step.kind === 'if') return { kind: 'held', held: world.holds(step.id, row) }
	// Looked at a few times before it comes to something.
	if (step.kind === 'ask' || step.kind === 'until')
		return nth % 3 > 0 ? { kind: 'stays' } : { kind: 'held', held: world.holds(step.id, row) }
	if (step.kind === 'else') return { kind: 'held', held: held === false }
	if (step.kind === 'stop') return { kind: 'stop' }
	if (step.kind === 'each') {
		const rows = world.rows(step.id, row)
		const upto = each?.upto ?? Math.max(0, ...rows)
		return { kind: 'row', upto, row: rows.find((each_) => each_ > (each?.last ?? 0) && each_ <= upto) }
	}
	done.push(`${step.id} ${row}`)
	return { kind: 'done', many: 1 }
}

/** The same by calling itself, as anybody would write it down: the oracle. */
function oracle(steps: readonly Step[], world: World): Done {
	const done: Done = []
	class Stopped extends Error {}
	const walk = (list: readonly Step[], row: number): void => {
		let held: boolean | undefined
		for (const step of list) {
			const before = held
			held = undefined
			if (step.kind === 'stop') throw new Stopped()
			else if (step.kind === 'if' || step.kind === 'ask' || step.kind === 'until') {
				held = world.holds(step.id, row)
				if (held) walk(step.lines, row)
			} else if (step.kind === 'else') {
				if (before === false) walk(step.lines, row)
			} else if (step.kind === 'each') for (const each of world.rows(step.id, row)) walk(step.lines, each)
			else done.push(`${step.id} ${row}`)
			if (done.length > MOST_DONE) throw new Stopped()
		}
	}
	try {
		walk(steps, 1)
	} catch (thrown) {
		if (!(thrown instanceof Stopped)) throw thrown
	}
	return done
}

let made = 0
const id = () => `s${made++}`
const { steps } = fc.letrec<{ steps: Step[]; step: Step }>((tie) => ({
	steps: fc.array(tie('step'), { maxLength: 4, depthIdentifier: 'steps' }),
	step: fc.oneof(
		{ depthIdentifier: 'steps', maxDepth: 4, withCrossShrink: true },
		fc.constantFrom('set', 'remove').map((kind): Step => (kind === 'set' ? { id: id(), kind, column: 1, formula: '1' } : { id: id(), kind: 'remove' })), // prettier-ignore
		fc.constant(null).map((): Step => ({ id: id(), kind: 'stop' })),
		tie('steps').map((lines): Step => ({ id: id(), kind: 'if', where: '', lines })),
		tie('steps').map((lines): Step => ({ id: id(), kind: 'else', lines })),
		tie('steps').map((lines): Step => ({ id: id(), kind: 'ask', to: '', columns: [], subject: '', body: '', lines })),
		tie('steps').map((lines): Step => ({ id: id(), kind: 'until', where: '', lines })),
		tie('steps').map((lines): Step => ({ id: id(), kind: 'each', table: 1, where: '', lines }))
	)
}))

/** Which conditions hold and which rows there are, by a number: the same each time it is asked. */
function worldOf(seed: number): World {
	const mix = (text: string) => [...`${seed} ${text}`].reduce((sum, sign) => (sum * 31 + sign.charCodeAt(0)) >>> 0, 7)
	return {
		holds: (step, row) => mix(`${step} ${row}`) % 3 > 0,
		rows: (step, row) => [2, 3, 5, 8].filter((each) => mix(`${step} ${row} ${each}`) % 2 === 0)
	}
}

test('a stack that is kept after any step comes to what walking through the steps does', () => {
	fc.assert(
		fc.property(steps, fc.integer({ min: 0, max: 1_000 }), fc.integer({ min: 1, max: 5 }), (program, seed, every) => {
			const world = worldOf(seed)
			const wanted = oracle(program, world)
			fc.pre(wanted.length < MOST_DONE / 4)
			expect(run(program, world)).toEqual(wanted)
			expect(run(program, world, (nth) => nth % every === 0)).toEqual(wanted)
		}),
		{ numRuns: 600 }
	)
})

test('a row that comes while others are gone through waits for the next time', () => {
	const body: Step = { id: 'b', kind: 'set', column: 1, formula: '1' }
	const program: Step[] = [{ id: 'e', kind: 'each', table: 1, where: '', lines: [body] }]
	const rows = [2, 4]
	const world = { holds: () => true, rows: () => rows }
	const first = after(program, beginStack(1), outcomeOf(program[0] as Step, { row: 1, world, done: [], nth: 0 }))
	expect(first.at(-1)).toEqual({ at: 0, row: 2 })
	rows.push(9)
	const back = after(program, first, { kind: 'done', many: 1 })
	const { frame } = standingAt(program, back) ?? {}
	expect(frame?.each).toEqual({ last: 2, upto: 4, done: 1 })
	expect(outcomeOf(program[0] as Step, { row: 1, each: { last: 4, upto: 4 }, world, done: [], nth: 0 })).toMatchObject({
		row: undefined
	})
})

test('what stands in a step knows the row around its own', () => {
	const say: Step = { id: 'w', kind: 'stop' }
	const inner: Step = { id: 'e2', kind: 'each', table: 3, where: '', lines: [say] }
	const program: Step[] = [{ id: 'e1', kind: 'each', table: 2, where: '', lines: [inner] }]
	let stack = after(program, beginStack(7), { kind: 'row', row: 20, upto: 20 })
	expect(standingAt(program, stack)).toMatchObject({ step: { id: 'e2' }, outer: 7, through: { id: 'e1' } })
	stack = after(program, stack, { kind: 'row', row: 30, upto: 30 })
	expect(standingAt(program, stack)).toMatchObject({ outer: 20, through: { id: 'e2' }, outerThrough: { id: 'e1' } })
})
