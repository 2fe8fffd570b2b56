/**
 * What a routine would have started in the last seven days, and what it would have done: nothing is written and nothing sent. It
 * may be tried by who may release it.
 *
 * Starts are exact, since the history holds each row before and after; what stands in other rows is as of today. What the steps
 * come to is worked out on the rows as they are now, by the same program that runs them.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { AppDocument } from '$lib/core/app/document.ts'
import { getColumn, getTable, type Table } from '$lib/core/model/table.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { TriedRoutine, TriedStart } from '$lib/core/requests/runs.ts'
import { after, beginStack, standingAt, type Outcome, type Stack } from '$lib/core/routine/program.ts'
import type { Routine, Step } from '$lib/core/routine/routine.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { instantAt, localDate } from '$lib/core/schedule/zone.ts'
import { isStored } from '$lib/core/table/storage.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { momentAt, standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import type { Acting } from '../routines/acting.ts'
import { timesComing } from '../routines/clocks.ts'
import { rowsAt } from '../routines/go-on.ts'
import { doStep } from '../routines/run-steps.ts'
import { heldOf } from '../routines/held.ts'
import { recipientOf, type StepNow } from '../routines/step-now.ts'
import { fitsStart, happened, startOf } from '../routines/starts.ts'
import { readBody, type Snapshot } from '../rows/read-history.ts'
import { rowLabel } from '../rows/row-label.ts'
import { cellText } from '../rows/written-text.ts'
import { rowFromStored } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'
import { refuseUnheldRows } from './refuse-unheld-rows.ts'

const DAYS = 7
const MOST_READ = 20_000
const MOST_SHOWN = 50
/** Steps that are followed, over all starts; beyond them the counts are the least. */
const MOST_STEPS = 5_000

/** What the history holds nothing of. */
const OTHERWISE: Readonly<Partial<Record<Routine['start']['kind'], string>>> = {
	button: 'It starts when somebody presses. Try it in the Lookout.',
	file: 'It starts when a file was brought in. Bring one in to try it.',
	scan: 'It starts when somebody scans a code. Try it in the Lookout.',
	request: 'It starts when another program asks for it, of which the Logbook holds nothing. Send a request to try it.'
}

const KINDS: ReadonlySet<string> = new Set(['add', 'change', 'remove'])
const ENTRIES = `SELECT at, person, kind, table_id AS "table", row_n AS "row", body FROM history ORDER BY seq DESC`

export interface Trying extends ByActor {
	/** The draft that it stands in. */
	readonly document: AppDocument
	readonly routine: Routine
}

export function tryRoutine(store: Store, trying: Trying): TriedRoutine {
	const { document, routine, now, ...by } = trying
	refuseUnlessBuilder(store, by.actor)
	const to = localDate(new Date(now).toISOString(), store.workspace().timeZone)
	const none = { from: addDays(to, -DAYS) ?? to, to, read: 0, isCut: false, starts: 0, shown: [], steps: {} }
	const other = OTHERWISE[routine.start.kind]
	if (other !== undefined) return { ...none, why: other }
	try {
		refuseUnheldRows(store, { ...document, screens: [], signoffs: [], routines: [routine] }, undefined, { ...by, now })
		return { ...none, why: '', ...(isByRows(routine) ? tryRows(store, trying, none.from) : tryClock(store, trying)) }
	} catch (thrown) {
		if (!(thrown instanceof AppError)) throw thrown
		return { ...none, why: thrown.message }
	}
}

function isByRows({ start }: Routine): boolean {
	return start.kind === 'rows' || start.kind === 'comes'
}

interface StoredEntry {
	readonly at: number
	readonly person: number | null
	readonly kind: string
	readonly table: number | null
	readonly row: number | null
	readonly body: string
}

type Tried = Pick<TriedRoutine, 'starts' | 'shown' | 'steps'>

function tryRows(store: Store, trying: Trying, from: string): Tried & Pick<TriedRoutine, 'read' | 'isCut'> {
	const { routine, actor, now } = trying
	const start = startOf(store, routine)
	if (!start) return { starts: 0, shown: [], steps: {}, read: 0, isCut: false }
	const table = getTable(store.workspace().catalogue, start.table)
	const since = Date.parse(instantAt(`${from}T00:00:00.000`, store.workspace().timeZone))
	let read = 0
	const shown: TriedStart[] = []
	const started: number[] = []
	for (const entry of store.prepare<StoredEntry>(ENTRIES).iterate()) {
		if (entry.at < since || read === MOST_READ) break
		read++
		if (entry.table !== table.id || entry.row === null || !KINDS.has(entry.kind)) continue
		const event = eventOf(table, entry, entry.row)
		const starts = fitsStart(start, happened(store, event, now))
		// A save that fits and is no crossing is worth showing too.
		if (!starts && !fitsStart({ ...start, crosses: false }, happened(store, event, now))) continue
		if (starts) started.push(entry.row)
		if (shown.length === MOST_SHOWN) continue
		const row = rowLabel(store, table, { person: actor.person, n: entry.row, now })
		shown.push({ at: entry.at, row, by: nameOf(store, entry.person, trying), starts })
	}
	return { read, isCut: read === MOST_READ, starts: started.length, shown, steps: follow(store, trying, started) }
}

/** The row as it stood after a change and before; of one that was added there is none before. */
function eventOf(table: Table, { kind, body }: StoredEntry, n: number) {
	const { before, after: changed } = readBody(body)
	const toRow = (cells: Snapshot) => {
		const stored = table.columns.filter(isStored).map(({ id }) => [id, cells[cellKey(id)] ?? null] as const)
		return rowFromStored(n, 0, new Map(stored))
	}
	const row = toRow({ ...before, ...changed })
	if (kind === 'remove') return { kind: 'removed' as const, table, n, before: row }
	const event = { kind: kind === 'add' ? ('added' as const) : ('changed' as const), table, n, after: row }
	return before ? { ...event, before: toRow(before) } : event
}

function tryClock(store: Store, trying: Trying): Tried {
	const { routine, now } = trying
	const times = timesComing(store, routine, { now, days: DAYS })
	const shown = times.slice(0, MOST_SHOWN).map((at) => ({ at, row: '', by: '', starts: true }))
	// Which rows come due then is not known yet.
	const steps = routine.start.kind === 'clock' ? follow(store, trying, [null]) : {}
	return { starts: times.length, shown, steps }
}

interface Count {
	readonly kind: Step['kind']
	readonly reached: number
	/** How often its condition held, how many rows there were, how many messages found somebody. */
	readonly came: number
}

/** What each step would come to, over all these starts, in a few words. */
function follow(store: Store, trying: Trying, rows: readonly (number | null)[]): Record<string, string> {
	const counts = new Map<string, Count>()
	const acting = actingIn(store, trying)
	let left = MOST_STEPS
	for (const row of rows)
		for (let stack: Stack = beginStack(row); stack.length > 0 && left > 0; left--)
			stack = followStep(store, trying, { stack, acting, counts })
	return Object.fromEntries([...counts].map(([id, count]) => [id, sayCount(count, left === 0)]))
}

interface Following {
	readonly stack: Stack
	readonly acting: Acting
	readonly counts: Map<string, Count>
}

function followStep(store: Store, { routine, now }: Trying, { stack, acting, counts }: Following): Stack {
	const standing = standingAt(routine.steps, stack)
	if (!standing) return []
	const { step, frame, following } = standing
	const [at, outer] = rowsAt(store, routine, standing)
	const outcome = outcomeOf(step, {
		...{ store, acting, at, outer, frame, following, now },
		...{
			cause: '',
			routine: routine.name,
			path: [],
			presser: undefined,
			added: undefined,
			run: 0,
			app: 0,
			release: 0,
			by: null,
			// Nobody gave it anything, and nothing is kept.
			held: heldOf(store, routine, 0)
		}
	})
	const { reached = 0, came = 0 } = counts.get(step.id) ?? {}
	// Each row of a set comes back to it; it was reached once.
	const isAgain = frame.each !== undefined
	counts.set(step.id, { kind: step.kind, reached: reached + (isAgain ? 0 : 1), came: came + outcome.came })
	return after(routine.steps, stack, outcome)
}

/** What only looks is done as it is when it runs; of what writes or sends it is counted that it would. */
function outcomeOf(step: Step, now: StepNow): Outcome & { readonly came: number } {
	switch (step.kind) {
		case 'if':
		case 'else':
		case 'each':
		case 'stop': {
			const { outcome } = doStep(step, now)
			const isMet = outcome.kind === 'held' ? outcome.held : outcome.kind !== 'row' || outcome.row !== undefined
			return { ...outcome, came: isMet ? 1 : 0 }
		}
		case 'send':
		case 'report':
		case 'document':
			return { kind: 'done', many: 1, came: recipientOf(step, now) === undefined ? 0 : 1 }
		case 'until':
			return { kind: 'held', held: true, came: 1 }
		case 'ask':
			// Nobody knows what they would answer: what stands in it is followed as though they had.
			return { kind: 'held', held: true, came: recipientOf(step, now) === undefined ? 0 : 1 }
		default:
			return { kind: 'done', many: 1, came: 1 }
	}
}

function actingIn(store: Store, { routine, now }: Trying): Acting {
	const role = routine.acts ?? undefined
	if (role === undefined)
		return { actor: undefined, rights: undefined, moment: momentAt(store.workspace().timeZone, now) }
	const { rights, moment } = standingOf(store, { person: 0, role }, now)
	return { actor: undefined, rights, moment }
}

function nameOf(store: Store, person: number | null, { actor, now }: Trying): string {
	if (person === null) return ''
	const { people } = store.workspace().catalogue
	return cellText(store, people, { column: getColumn(people, people.label), n: person, person: actor.person, now })
}

const SAYS: Readonly<Partial<Record<Step['kind'], (came: number) => string>>> = {
	send: (came) => `${came} ${came === 1 ? 'message' : 'messages'}`,
	document: (came) => `${came} ${came === 1 ? 'document' : 'documents'}`,
	report: (came) => `${came} ${came === 1 ? 'report' : 'reports'}`,
	ask: (came) => `${came} asked`,
	call: (came) => `${came} ${came === 1 ? 'call' : 'calls'}`,
	each: (came) => `${came} ${came === 1 ? 'row' : 'rows'}`,
	add: (came) => `${came} ${came === 1 ? 'row' : 'rows'} added`,
	remove: (came) => `${came} ${came === 1 ? 'row' : 'rows'} removed`,
	set: (came) => `set ${came === 1 ? 'once' : `${came} times`}`
}

function sayCount({ kind, reached, came }: Count, isCut: boolean): string {
	const least = isCut ? 'at least ' : ''
	if (['send', 'report', 'document', 'ask'].includes(kind) && came < reached)
		return `${least}${came} of ${reached} name somebody`
	return least + (SAYS[kind]?.(came) ?? (came === reached ? `${reached}` : `${came} of ${reached}`))
}
