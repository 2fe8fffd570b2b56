/**
 * Who releases a sign-off gives its decider sight of rows, and who releases a routine that starts with a row learns of
 * them: both are the keeper's to do. What the live release holds already was released by whoever might.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { AppDocument } from '$lib/core/app/document.ts'
import { check, checkCondition, type Checked } from '$lib/core/formula/check.ts'
import type { Table } from '$lib/core/table/types.ts'
import { refuseUnheld } from '../people/held-formulas.ts'
import type { Store } from '../store.ts'
import { getKeptTable } from '../workspace/kept-table.ts'
import type { ByBuilder } from './apps.ts'

export function refuseUnkept(store: Store, document: AppDocument, live: AppDocument | undefined, by: ByBuilder): void {
	const known = new Set([...(live?.signoffs ?? []), ...(live?.routines ?? [])].map((each) => JSON.stringify(each)))
	const fresh = <T>(list: readonly T[]): T[] => list.filter((each) => !known.has(JSON.stringify(each)))
	for (const signoff of fresh(document.signoffs)) {
		const what = `Sign-off ${signoff.name}`
		const table = keptOrRefused(store, signoff.table, by, what)
		for (const child of signoff.children) keptOrRefused(store, child.table, by, what)
		refuseFormula(store, checkCondition(signoff.where || 'TRUE', scopeOf(store, table)), by, what)
		refuseFormula(store, check(signoff.decider, scopeOf(store, table)), by, what)
	}
	for (const routine of fresh(document.routines)) {
		if (routine.start.kind !== 'rows') continue
		const what = `Routine ${routine.name}`
		const table = keptOrRefused(store, routine.start.table, by, what)
		refuseFormula(store, checkCondition(routine.start.where || 'TRUE', scopeOf(store, table)), by, what)
		for (const step of routine.steps)
			if (step.kind === 'send') refuseFormula(store, check(step.to, scopeOf(store, table)), by, what)
	}
}

function keptOrRefused(store: Store, id: number, { actor }: ByBuilder, what: string): Table {
	try {
		return getKeptTable(store, id, actor)
	} catch {
		throw new AppError(
			'forbidden',
			`${what} works on a table that somebody else keeps. Only its keeper can release that.`
		)
	}
}

function scopeOf(store: Store, table: Table) {
	return { catalogue: store.workspace().catalogue, rows: [table], me: false }
}

function refuseFormula(store: Store, { expr }: Checked, { actor, now }: ByBuilder, what: string): void {
	if (expr) refuseUnheld(store, expr, { actor, now, what })
}
