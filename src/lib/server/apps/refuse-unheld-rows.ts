/**
 * Who releases a sign-off gives its decider sight of rows, and who releases a routine that starts with a row learns of
 * them: both are the keeper's to do. What routines and sign-offs work out they work out as somebody else or on the data as
 * it is, and it ends in a message, in a cell or with a decider: each of their formulas reads only what their builder holds,
 * whatever starts them. What the live release holds already was released by whoever might.
 */
import { isAlways } from '$lib/core/formula/syntax/constant.ts'
import { standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { AppDocument } from '$lib/core/app/document.ts'
import { mapFormulas } from '$lib/core/app/walk-app.ts'
import { entryOfStart, tableOfStart, type Routine } from '$lib/core/routine/routine.ts'
import { placedSteps } from '$lib/core/routine/step-tree.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { scopeOf } from '$lib/core/formula/check/rename.ts'
import { refuseUnheld } from '../rights/held-formulas.ts'
import type { Store } from '../store/store.ts'
import { refuseUnlessGives } from '../routines/acting.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'

export function refuseUnheldRows(
	store: Store,
	document: AppDocument,
	live: AppDocument | undefined,
	by: ByActor
): void {
	const fresh = freshOf(document, live)
	for (const { name, table, children } of fresh.signoffs)
		for (const id of [table, ...children.map((child) => child.table)])
			refuseUnlessKeeper(store, id, by, `Sign-off ${name}`)
	for (const routine of fresh.routines) refuseUnheldRoutine(store, routine, by)
	refuseUnheldFormulas(store, fresh, by)
}

/** What starts by itself learns of rows, and what goes through rows of those; a role is put to work by who may give it. */
function refuseUnheldRoutine(store: Store, routine: Routine, by: ByActor): void {
	const { name, start, acts } = routine
	const what = `Routine ${name}`
	const begins = start.kind === 'file' ? start.into : tableOfStart(start)
	if (!entryOfStart(start).isPressed && begins !== undefined) refuseUnlessKeeper(store, begins, by, what)
	const role = acts ?? undefined
	// As a role it goes through rows that whoever pressed, and its builder, may not see.
	const isOwn = entryOfStart(start).isPressed && role === undefined
	for (const { step, table } of placedSteps(routine)) {
		if (step.kind === 'each' && !isOwn && !seesAll(store, step.table, by))
			refuseUnlessKeeper(store, step.table, by, what)
		// It goes on by what is filled in, whoever filled it in.
		if (step.kind === 'ask' && table !== undefined) refuseUnlessKeeper(store, table, by, what)
	}
	if (role !== undefined) refuseUnlessGives(store, by.actor.person, role)
}

/** Of rows all of which a builder sees, going through them tells nothing new. */
function seesAll(store: Store, id: number, { actor, now }: ByActor): boolean {
	const table = store.workspace().catalogue.tables.get(id)
	return table !== undefined && isAlways(standingOf(store, actor, now).rights.rows(table))
}

/** The document with no routines and sign-offs but those that are not released as they stand; screens decide nothing. */
function freshOf(document: AppDocument, live: AppDocument | undefined): AppDocument {
	const known = new Set([...(live?.signoffs ?? []), ...(live?.routines ?? [])].map((each) => JSON.stringify(each)))
	const isFresh = (each: unknown) => !known.has(JSON.stringify(each))
	const { routines, signoffs } = document
	return { ...document, screens: [], routines: routines.filter(isFresh), signoffs: signoffs.filter(isFresh) }
}

function refuseUnlessKeeper(store: Store, id: number, { actor }: ByActor, what: string): void {
	try {
		getTableAsKeeper(store, id, actor)
	} catch {
		throw new AppError(
			'forbidden',
			`${what} works on a table that somebody else keeps. Only its keeper can release that.`
		)
	}
}

function refuseUnheldFormulas(store: Store, document: AppDocument, { actor, now }: ByActor): void {
	const { catalogue } = store.workspace()
	mapFormulas(document, (text, standing, what) => {
		// One that cannot be read works nothing out; the check before a release says so.
		const { expr } = check(text, scopeOf(standing, catalogue))
		if (expr) refuseUnheld(store, expr, { actor, now, what })
		return text
	})
}
