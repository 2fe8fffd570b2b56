/**
 * What a builder is told before a release: the check of the draft, and what the rows say of it. Rows are counted as this builder
 * sees them.
 */
import { placedSteps } from '$lib/core/routine/step-tree.ts'
import type { AppDocument } from '$lib/core/app/document.ts'
import { placedLines } from '$lib/core/app/lines/tree.ts'
import { at, atLine, remark, type Finding } from '$lib/core/document/findings.ts'
import { countOf } from '$lib/core/text/count.ts'
import { countRows } from '../rows/read.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { readDraft } from './apps.ts'
import { checkDraft } from './check-draft.ts'

/** Longer lists are read to their end by nobody. */
const LONG = 1_000

export function lookOver(store: Store, { app, actor, now }: ByActor & { app: number }): Finding[] {
	const { document } = readDraft(store, app)
	const found = checkDraft(store, { app, now })
	// What cannot be read yet cannot be counted.
	if (found.some(({ weight }) => weight === 'mistake')) return found
	const counting = { store, document, actor, now }
	return [...found, ...longLists(counting), ...sentToNobody(counting), ...decidedByNobody(counting)]
}

interface Counting extends ByActor {
	readonly store: Store
	readonly document: AppDocument
}

function count({ store, actor, now }: Counting, table: number, where: readonly string[], limit: number): number {
	return countRows(store, actor, { table, where, limit }, now)
}

/** Lists of very many rows in which nothing can be looked for. */
function longLists(counting: Counting): Finding[] {
	return counting.document.screens.flatMap((screen) =>
		placedLines(screen.lines).flatMap(({ line, number }) => {
			if (line.kind !== 'list' || line.of !== null || line.limit !== null || line.asOf !== '') return []
			if (line.finds.length + line.filters.length > 0 || /\bhere\b/i.test(line.where)) return []
			if (count(counting, line.table, [line.where], LONG + 1) <= LONG) return []
			return remark(
				'It has more than 1,000 rows, and nothing to look for one by. Let words be looked for, or narrow it down.'
			).map(atLine(screen, { line, number }))
		})
	)
}

/** Messages for rows that name nobody. */
function sentToNobody(counting: Counting): Finding[] {
	return counting.document.routines.flatMap((routine) =>
		placedSteps(routine).flatMap(({ step, table, outer, number, within }) => {
			// Of rows within others each row is a question of its own.
			if ((step.kind !== 'send' && step.kind !== 'report') || table === undefined || outer !== undefined) return []
			const where = within.findLast((each) => each.kind === 'each')?.where ?? ''
			// What the routine holds by name is known only when it runs.
			if ([where, step.to].some((text) => /\bhere\b/i.test(text))) return []
			const [nobody, all] = named(counting, table, step.to, where)
			if (nobody === 0) return []
			return remark(
				`Of the ${sayRows(all)} that you see, ${sayCount(nobody)} ${nobody === 1 ? 'names' : 'name'} nobody in "${step.to}": no message goes out for ${nobody === 1 ? 'it' : 'them'}.`
			).map(at(`Routine ${routine.name}, line ${number}`, { bay: 'routines', routine: routine.id, line: step.id }))
		})
	)
}

/** Requests that would wait for ever. */
function decidedByNobody(counting: Counting): Finding[] {
	return counting.document.signoffs.flatMap(({ name, table, where, decider }) => {
		const [nobody, all] = named(counting, table, decider, where)
		if (nobody === 0) return []
		return remark(
			`Of the ${sayRows(all)} that you see and that need it, ${sayCount(nobody)} ${nobody === 1 ? 'has' : 'have'} nobody who decides: "${decider}" is blank there. Such a request waits for ever.`
		).map(at(`Sign-off ${name}`, { bay: 'sign-offs' }))
	})
}

/** Counted no further: nobody goes through so many by hand. */
const MOST = 100_000

/** How many rows of a table name nobody, and how many there are. */
function named(counting: Counting, table: number, person: string, where: string): readonly [number, number] {
	const all = count(counting, table, [where], MOST)
	return all === 0 ? [0, 0] : [count(counting, table, [where, `ISBLANK(${person})`], MOST), all]
}

function sayCount(count: number): string {
	return `${count >= MOST ? 'at least ' : ''}${count.toLocaleString('en-GB')}`
}

function sayRows(count: number): string {
	return `${count >= MOST ? 'at least ' : ''}${countOf(count, 'row')}`
}
