/**
 * The writer thread: the only writable connection. Changes wait in one fair queue and are committed in groups, each
 * change in a savepoint of its own, and are answered after the commit; if the commit fails, all are refused.
 *
 * Import batches stand in a lane of their own: one of them goes with each group, so that edits never wait for more.
 */
import { parentPort, workerData, type MessagePort } from 'node:worker_threads'
import { AppError } from '$lib/core/app-error.ts'
import { refuseDamaged } from '../store/open.ts'
import { settleTurns } from '../store/turns.ts'
import { watchSessions } from '../rights/accounts.ts'
import type { Store } from '../store/store.ts'
import type { Growth } from '../derived/tend-indexes.ts'
import { noteRefusal, refuseGuessing } from '../history/note-refusal.ts'
import { openWriter } from './open-writer.ts'
import { toAnswer, type Answer, type Ask, type ThreadData, type Changed } from './protocol.ts'
import { ALONE, BULK, FILLING, STAFF, WRITES, type WriteName } from './writes.ts'

/** How long a group may take in further changes; longer would be felt, shorter would cost a sync each. */
const GROUP_MS = 2

// Handed over by `open-threads`.
const { file, key } = workerData as ThreadData
const store = open()
watchSessions(store)
type Reply = (answer: Answer) => void
const quick: Queued[] = []
const bulk: Queued[] = []
let scheduled = false

interface Queued {
	readonly ask: Ask
	readonly reply: Reply
}

const toMain: Reply = (answer) => parentPort?.postMessage(answer)

parentPort?.on('message', (message: Ask | { port: MessagePort }) => {
	// An import talks to the writer directly, so that its rows never pass through the main thread.
	if ('port' in message)
		message.port.on('message', (ask: Ask) => take(ask, (answer) => message.port.postMessage(answer)))
	else take(message, toMain)
})
parentPort?.postMessage('ready')

function open(): Store {
	try {
		refuseDamaged(file)
		return openWriter(file, key, refuseToGoOn)
	} catch (error) {
		// The driver's errors lose their words on the way to another thread; plain ones do not.
		const { name, message, code } = error as Error & { code?: string }
		throw Object.assign(new Error(message), { name, code })
	}
}

function take(ask: Ask, reply: Reply): void {
	;(BULK.has(ask.name) ? bulk : quick).push({ ask, reply })
	schedule()
}

function schedule(): void {
	if (scheduled) return
	scheduled = true
	// After what has already arrived was taken in, so that it shares the commit.
	setImmediate(() => {
		scheduled = false
		const [first] = quick
		// There is a first one.
		if (first && ALONE.has(first.ask.name)) runAlone(quick.shift() as Queued)
		else runGroup()
		if (quick.length > 0 || bulk.length > 0) schedule()
	})
}

function runGroup(): void {
	const answers: { answer: Answer; reply: Reply }[] = []
	store.touched.clear()
	store.db.exec('BEGIN IMMEDIATE')
	const started = performance.now()
	try {
		for (let next = quick[0]; next && !ALONE.has(next.ask.name); next = quick[0]) {
			quick.shift()
			answers.push({ answer: run(next.ask), reply: next.reply })
			if (performance.now() - started > GROUP_MS) break
		}
		const batch = bulk.shift()
		if (batch) answers.push({ answer: run(batch.ask), reply: batch.reply })
		store.db.exec('COMMIT')
		settleTurns(store.db)
	} catch (error) {
		if (store.db.inTransaction) store.db.exec('ROLLBACK')
		store.forget()
		for (const { answer, reply } of answers) reply(toAnswer(answer.id, error))
		return
	}
	tellChanged()
	for (const { answer, reply } of answers) reply(answer)
}

function run({ id, name, args }: Ask): Answer {
	store.db.exec('SAVEPOINT change')
	const touched = [...store.touched]
	try {
		refuseGuessing(args)
		until = STAFF.has(name) ? performance.now() + LONGEST_MS : Infinity
		const result = call(name, args)
		store.db.exec('RELEASE change')
		return { id, ok: true, json: JSON.stringify(result ?? null) }
	} catch (error) {
		store.db.exec('ROLLBACK TO change')
		store.db.exec('RELEASE change')
		store.forget()
		store.touched.clear()
		for (const each of touched) store.touched.add(each)
		noteRefusal(store, args, error)
		return toAnswer(id, error)
	}
}

/** What cannot run inside a transaction: making a copy of the file. */
function runAlone({ ask: { id, name, args }, reply }: Queued): void {
	try {
		reply({ id, ok: true, json: JSON.stringify(call(name, args) ?? null) })
	} catch (error) {
		reply(toAnswer(id, error))
	}
}

/** A change that staff make, whatever conditions it is judged by: meanwhile nobody else's is done. */
const LONGEST_MS = 10_000
let until = Infinity

/** Asked from inside long scans; what is refused is undone like any other refusal. */
function refuseToGoOn(): void {
	if (performance.now() > until)
		throw new AppError(
			'busy',
			'This took too long and was stopped; nothing was changed. A rule or a line of this table asks for too much: tell whoever keeps it.'
		)
}

/** Indexes grow when no file has come in for a while: a group has room for one of the two. */
const QUIET_MS = 1_000
let filledAt = -Infinity

function call(name: string, args: unknown): unknown {
	if (FILLING.has(name)) filledAt = performance.now()
	if (name === 'tendIndexes' && performance.now() - filledAt < QUIET_MS) return 'later' satisfies Growth
	// The name decides which arguments come; it may be a name of no write.
	const write = WRITES[name as WriteName] as ((store: unknown, args: unknown) => unknown) | undefined
	if (!write) throw new Error(`Cannot find write "${name}"`)
	return write(store, args)
}

function tellChanged(): void {
	if (store.touched.size === 0) return
	const tables = [...store.touched].filter((each) => typeof each === 'number')
	const has = (what: 'access' | 'jobs' | 'sessions') => store.touched.has(what)
	const numbered = (what: 'draft' | 'told') =>
		[...store.touched].flatMap((each) =>
			typeof each === 'string' && each.startsWith(`${what} `) ? Number(each.slice(what.length + 1)) : []
		)
	const message: Changed = {
		changed: {
			...{ tables, drafts: numbered('draft'), told: numbered('told') },
			...{ access: has('access'), jobs: has('jobs'), sessions: has('sessions') }
		}
	}
	parentPort?.postMessage(message)
}
