/**
 * What a change of a row causes, in the transaction of the change: routines that start with it are begun, those that wait for it
 * look again, sign-offs that it asks for are opened.
 */
import { openCase } from '../signoffs/open-case.ts'
import { wakeRunsOn } from '../routines/asks.ts'
import { addRun } from '../routines/runs.ts'
import { fitsStart, happened, holds, startsOn, type LiveStart } from '../routines/starts.ts'
import type { Store } from '../store/store.ts'
import type { RowEvent } from '../rows/change.ts'
import type { ChangeContext } from '../rows/change-context.ts'

/** Begins what live routines start after a change of a row, and opens the sign-offs that it asks for. */
export function raiseEvents(store: Store, event: RowEvent, context: ChangeContext): void {
	wakeRunsOn(store, { table: event.table.id, n: event.n, now: context.now })
	const { routines, signoffs } = startsOn(store, event.table.id)
	if (routines.length === 0 && signoffs.length === 0) return
	const what = happened(store, event, context.now)
	const isOfFile = typeof context.through === 'string' && context.through.startsWith('file ')
	for (const start of routines)
		if ((start.ofFiles || !isOfFile) && fitsStart(start, what)) begin(store, start, event, context)
	for (const { app, signoff, condition } of event.kind === 'removed' ? [] : signoffs) {
		if (condition.isAlways && event.kind !== 'added') continue
		if (!holds(condition, what.after)) continue
		const { person } = context.actor
		openCase(store, { app: app.id, signoff, table: event.table, n: event.n, askedBy: person, now: context.now })
	}
}

function begin(
	store: Store,
	{ app, routine }: LiveStart,
	{ table, n }: RowEvent,
	{ actor, now, path = [] }: ChangeContext
): void {
	addRun(store, {
		...{ app: app.id, release: app.release, routine: routine.id, path: [...path, routine.name], now },
		...{ person: actor.person === 0 ? null : actor.person, on: { table: table.id, n } }
	})
}
