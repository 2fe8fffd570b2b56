/**
 * What a change of a row causes, in the transaction of the change: routines that start with it are queued, sign-offs
 * that it asks for are opened.
 *
 * Conditions are the builder's: judged on the data as it is.
 */
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { allOf, param, sql } from '$lib/core/sql/sql.ts'
import { liveApps } from '../releases/live.ts'
import { addJob } from '../queue/queue.ts'
import { momentAt } from '../rights/rights-of-actor.ts'
import { openCase } from '../signoffs/open-case.ts'
import type { Store } from '../store/store.ts'
import type { RowEvent } from '../rows/change.ts'
import type { ChangeContext } from '../rows/change-context.ts'

/** Chains of routines that set each other off stop here. */
const MAX_DEPTH = 10

/** Queues what live routines start after a change of a row, and opens the sign-offs that it asks for. */
export function raiseEvents(store: Store, event: RowEvent, context: ChangeContext): void {
	if (event.kind === 'removed') return
	for (const app of liveApps(store)) {
		for (const routine of app.document.routines) {
			const { start } = routine
			if (start.kind !== 'rows' || start.table !== event.table.id || !start.when.includes(event.kind)) continue
			const depth = (context.depth ?? 0) + 1
			if (depth > MAX_DEPTH || !holdsFor(store, event, start.where, context.now)) continue
			const place = {
				app: app.id,
				release: app.release,
				routine: routine.id,
				table: event.table.id,
				row: event.n,
				depth
			}
			addJob(store, 'routine', { ...place, person: context.actor.person }, context.now)
		}
		for (const signoff of app.document.signoffs) {
			if (signoff.table !== event.table.id || !holdsFor(store, event, signoff.where, context.now)) continue
			if (signoff.where.trim() === '' && event.kind !== 'added') continue
			openCase(store, {
				app: app.id,
				signoff,
				table: event.table,
				n: event.n,
				askedBy: context.actor.person,
				now: context.now
			})
		}
	}
}

function holdsFor(store: Store, { table, n }: RowEvent, where: string, now: number): boolean {
	if (where.trim() === '') return true
	const { catalogue, timeZone } = store.workspace()
	const { expr } = checkCondition(where, { catalogue, rows: [table], me: false })
	if (!expr) return false
	const moment = momentAt(timeZone, now)
	const condition = compileCondition(fold(expr, moment), newContext('r', moment))
	const [row] = store.select(sql`SELECT 1 FROM t${table.id} AS r WHERE ${allOf([sql`r.n = ${param(n)}`, condition])}`)
	return row !== undefined
}
