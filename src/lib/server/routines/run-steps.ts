/** What each kind of step does, on the row at hand, as whoever the routine acts as. */
import { AppError } from '$lib/core/app-error.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { CellChange, Change, Changed } from '$lib/core/query/change.ts'
import type { Outcome } from '$lib/core/routine/program.ts'
import type { Step, StepKind, StepOf } from '$lib/core/routine/routine.ts'
import { allOf, param, sql, type Sql } from '$lib/core/sql/sql.ts'
import { addMessage } from '../queue/messages.ts'
import { readRelease } from '../releases/live.ts'
import { readPersonRow, rolesOf } from '../rights/roles-held.ts'
import { changeRows } from '../rows/change.ts'
import type { Store } from '../store/store.ts'
import { addRun } from './runs.ts'
import { conditionsOn, holds, scopeOf } from './conditions.ts'
import { composeFor } from './compose.ts'
import { askSomebody } from './ask-somebody.ts'
import { askForRole } from './ask-for-role.ts'
import { beginSignoff } from './begin-signoff.ts'
import { callProgram } from './call-program.ts'
import { cellFor } from './set-cell.ts'
import { recipientOf, rowOf, type StepNow, type StepResult } from './step-now.ts'
import { documentFor, reportTo } from './report-job.ts'
import { waitForRow } from './wait-for-row.ts'
import { waitUntil } from './wait-until.ts'
import { addressOutside, sendOutside } from './outside.ts'
import { valueOf, valuesOf } from './step-values.ts'
import { sightOf } from './work-out.ts'

type DoStep<S> = (step: S, now: StepNow) => StepResult

const DONE: Outcome = { kind: 'done', many: 1 }

const STEPS: { readonly [K in StepKind]: DoStep<StepOf<K>> } = {
	set: setCells,
	add: addRow,
	cell: withHolder,
	link: withHolder,
	remove: (_step, now) => {
		const { table, n } = rowOf(now)
		change(now, [{ kind: 'remove', table: table.id, row: now.store.ids.toId(table.id, n) }])
		return { outcome: DONE, cameTo: 'removed', wrote: 1 }
	},
	restore: (_step, now) => {
		const { table, n } = rowOf(now)
		change(now, [{ kind: 'restore', table: table.id, row: now.store.ids.toId(table.id, n) }])
		return { outcome: DONE, cameTo: 'brought back', wrote: 1 }
	},
	send,
	report: reportTo,
	document: documentFor,
	heading: withHolder,
	words: withHolder,
	values: withHolder,
	list: withHolder,
	picture: withHolder,
	ask: askSomebody,
	say: ({ words }, now) => ({ outcome: DONE, cameTo: 'said', says: sayTo(now.presser, words, now) }),
	open: openScreen,
	signoff: beginSignoff,
	role: askForRole,
	run: runAnother,
	call: callProgram,
	take: withHolder,
	keep: ({ holds, value }, now) => ({
		outcome: DONE,
		cameTo: 'kept',
		keeps: { name: holds, value: valueOf(value, now) }
	}),
	give: withHolder,
	if: ({ where }, now) => {
		const held = holds(where, now)
		return { outcome: { kind: 'held', held }, cameTo: held ? 'went in' : 'passed over' }
	},
	else: (_step, { frame }) => {
		const held = frame.held === false
		return { outcome: { kind: 'held', held }, cameTo: held ? 'went in' : 'passed over' }
	},
	each: nextRow,
	until: waitForRow,
	wait: ({ many, span }, { store, now }) => ({
		outcome: DONE,
		cameTo: 'waited',
		until: waitUntil(store, { many, span }, now)
	}),
	stop: () => ({ outcome: { kind: 'stop' }, cameTo: 'ended here' })
}

/** What stands in a row that is added, in a document, or goes along with a run, is done with it. */
function withHolder(): StepResult {
	return { outcome: DONE, cameTo: '' }
}

/** Does a step; a refusal is thrown, and what it did by then is undone with the savepoint around it. */
export function doStep(step: Step, now: StepNow): StepResult {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return (STEPS[step.kind] as DoStep<Step>)(step, now)
}

/** This column and those that are set right after it, in one change: each is worked out over the row as it stood before. */
function setCells(step: StepOf<'set'>, now: StepNow): StepResult {
	const { table, n } = rowOf(now)
	const end = now.following.findIndex(({ kind }) => kind !== 'set')
	const further = (end === -1 ? now.following : now.following.slice(0, end)) as readonly StepOf<'set'>[]
	const cells = [step, ...further].map((each) => fill(each, table, now))
	change(now, [{ kind: 'change', table: table.id, row: now.store.ids.toId(table.id, n), cells }])
	return { outcome: { kind: 'done', many: cells.length }, cameTo: 'set', wrote: 1 }
}

function addRow({ table: id, unless, lines }: StepOf<'add'>, now: StepNow): StepResult {
	const { store } = now
	const table = store.workspace().catalogue.tables.get(id)
	if (!table) throw new AppError('invalid', 'The table that it adds to is gone.')
	const known = (unless ?? '').trim() === '' ? [] : conditionsOn(table, unless ?? '', now)
	if (known.length > 0 && firstOf(store, table, { conditions: known, role: undefined }) !== undefined)
		return { outcome: DONE, cameTo: 'one was there already' }
	const cells = lines.flatMap((line): CellChange[] => {
		if (line.kind === 'cell') return [fill(line, table, now)]
		if (line.kind !== 'link') return []
		const at = rowOf(now)
		return [{ column: line.column, value: { id: store.ids.toId(at.table.id, at.n) } }]
	})
	const [made] = change(now, [{ kind: 'add', table: table.id, cells }])
	const n = made && store.ids.fromId(table.id, made.row)
	return { outcome: DONE, cameTo: 'added', wrote: 1, ...(n === undefined ? {} : { added: { table, n } }) }
}

function send(step: StepOf<'send'>, now: StepNow): StepResult {
	const { subject, body } = step
	const { store, cause } = now
	const person = recipientOf(step, now)
	const email = person === undefined ? addressOutside(step, now) : undefined
	if (email !== undefined) {
		sendOutside(now, { email, subject, body, cause })
		return { outcome: DONE, cameTo: 'sent outside' }
	}
	if (person === undefined) return { outcome: DONE, cameTo: 'nobody was named' }
	const words = (text: string) => composeFor(store, text, { ...now, here: now.held.given, to: person })
	addMessage(store, {
		cause,
		person,
		subject: words(subject),
		body: words(body),
		link: linkTo(step, now),
		now: now.now
	})
	return { outcome: DONE, cameTo: 'sent', person }
}

/** Where its recipient finds the row: what of it they see there is decided when they come. */
function linkTo({ opens }: StepOf<'send'>, { app, at, store }: StepNow): string | undefined {
	const screen = opens ?? undefined
	if (screen === undefined) return undefined
	return `/app/${app}/${screen}${at ? `?row=${store.ids.toId(at.table.id, at.n)}` : ''}`
}

/** Whoever pressed is there only until the first step that waits: after that nothing is opened. */
function openScreen({ screen, on }: StepOf<'open'>, { store, at, added, presser }: StepNow): StepResult {
	if (presser === undefined) return { outcome: DONE, cameTo: 'nobody was there any more' }
	const row = on === 'this row' ? at : added
	return { outcome: DONE, cameTo: 'opened', opens: { screen, row: row ? store.ids.toId(row.table.id, row.n) : null } }
}

/** Of the same release; a step that is done again after a stop begins it once. */
function runAnother({ routine: id, lines }: StepOf<'run'>, now: StepNow): StepResult {
	const { store, app, release, by, path, cause } = now
	const { table, n } = rowOf(now)
	const called = readRelease(store, app, release).routines.find((each) => each.id === id)
	if (called?.start.kind !== 'called') throw new AppError('invalid', 'The routine that it runs is gone.')
	const on = { table: table.id, n }
	const held = valuesOf(lines, now)
	addRun(store, { app, release, routine: id, cause, person: by, on, path: [...path, called.name], held, now: now.now })
	return { outcome: DONE, cameTo: 'begun' }
}

/** Whoever a routine acts as has read what it keeps: only to themselves it is said. */
function sayTo(presser: number | undefined, words: string, now: StepNow): string {
	if (presser === undefined) return ''
	const { held, acting } = now
	const here = acting.actor?.person === presser && acting.actor.role === undefined ? held.here : held.given
	return composeFor(now.store, words, { ...now, here, to: presser })
}

function nextRow({ table: id, where, role }: StepOf<'each'>, now: StepNow): StepResult {
	const { store, frame } = now
	const table = store.workspace().catalogue.tables.get(id)
	if (!table) throw new AppError('invalid', 'The table that it goes through is gone.')
	const { last = 0, upto = lastRow(store, table), done = 0 } = frame.each ?? {}
	const conditions = [sql`r.n > ${param(last)}`, sql`r.n <= ${param(upto)}`, ...conditionsOn(table, where, now)]
	const row = firstOf(store, table, { conditions, role: role ?? undefined })
	return { outcome: { kind: 'row', row, upto }, cameTo: row === undefined ? `${done} rows` : '' }
}

/** The first row that fits; of people, who holds a role. */
function firstOf(
	store: Store,
	{ id }: Table,
	{ conditions, role }: { conditions: readonly Sql[]; role: number | undefined }
): number | undefined {
	const rows = sql`SELECT r.n FROM t${id} AS r WHERE ${allOf(conditions)} ORDER BY r.n`
	if (role === undefined) return store.select(sql`${rows} LIMIT 1`).map(([n]) => Number(n))[0]
	return store
		.select(rows)
		.map(([n]) => Number(n))
		.find((person) => rolesOf(store, person, readPersonRow(store, person)).has(role))
}

function lastRow(store: Store, table: Table): number {
	return store.pluck<number | null>(`SELECT max(n) FROM t${table.id}`) ?? 0
}

function fill(step: { readonly column: number; readonly formula: string }, table: Table, now: StepNow): CellChange {
	return cellFor(now.store, step, { table, scope: scopeOf(now), on: { ...now.at, ...sightOf(now.acting) } })
}

function change({ store, acting, routine, path, now }: StepNow, changes: readonly Change[]): Changed[] {
	const { actor } = acting
	if (!actor) throw new AppError('forbidden', 'It writes, and acts as nobody who may.')
	const role = store.workspace().roles.find(({ id }) => id === actor.role)
	const through = role ? (`routine ${routine} as ${role.name}` as const) : (`routine ${routine}` as const)
	return changeRows(store, changes, { actor, now, through, path })
}
