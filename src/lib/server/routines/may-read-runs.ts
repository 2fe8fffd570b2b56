/**
 * Who may read what a routine's runs came to. How often it started, which way an "If" went and whom a message found tell what stands in
 * rows: so they are for builders who see every row of the tables that it names, and all that its formulas read.
 */
import type { Rights } from '$lib/core/access/rights.ts'
import type { AppDocument } from '$lib/core/app/document.ts'
import { mapFormulas, tablesOf } from '$lib/core/app/walk-app.ts'
import { isAlways } from '$lib/core/formula/syntax/constant.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { scopeOf } from '$lib/core/formula/check/rename.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import { placedSteps } from '$lib/core/routine/step-tree.ts'
import { readRelease } from '../releases/live.ts'
import { findUnheld } from '../rights/held-formulas.ts'
import { standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'

export interface OfRelease {
	readonly app: number
	readonly release: number
	readonly routine: string
}

/** As it was in a release. */
export function mayReadRuns(store: Store, of: OfRelease, by: ByActor): boolean {
	const alone = aloneOf(store, of)
	if (alone.routines.length === 0) return false
	const { catalogue } = store.workspace()
	const { rights } = standingOf(store, by.actor, by.now)
	const seesAll = tablesOf(alone).every(({ table: id }) => {
		const table = catalogue.tables.get(id)
		return table !== undefined && isAlways(rights.rows(table))
	})
	const seesAnswers = alone.routines.flatMap(placedSteps).every(({ step, table: id }) => {
		const table = id === undefined ? undefined : catalogue.tables.get(id)
		return step.kind !== 'ask' || step.columns.every((column) => table && seesColumn(rights, table, column))
	})
	return seesAll && seesAnswers && holdsFormulas(store, alone, by)
}

function seesColumn(rights: Rights, table: Table, id: number): boolean {
	const column = findColumn(table, id)
	return column !== undefined && isAlways(rights.cell(table, column))
}

/** Whether somebody keeps all the tables that a routine names: then the words of a refusal are theirs to read too. */
export function keepsTables(store: Store, of: OfRelease, { actor }: ByActor): boolean {
	const { tables } = store.workspace().catalogue
	return tablesOf(aloneOf(store, of)).every(({ table }) => tables.get(table)?.keepers.includes(actor.person) ?? false)
}

function holdsFormulas(store: Store, alone: AppDocument, by: ByActor): boolean {
	const { catalogue } = store.workspace()
	let isHeld = true
	mapFormulas(alone, (text, standing) => {
		const { expr } = check(text, scopeOf(standing, catalogue))
		if (expr && findUnheld(store, expr, by) !== undefined) isHeld = false
		return text
	})
	return isHeld
}

/** The document of a release with nothing but the routine. */
function aloneOf(store: Store, { app, release, routine }: OfRelease): AppDocument {
	const document = readRelease(store, app, release)
	return { ...document, screens: [], signoffs: [], routines: document.routines.filter(({ id }) => id === routine) }
}
