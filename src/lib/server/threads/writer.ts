/**
 * The writer thread: the only writable connection. Changes wait in one fair queue and are committed in groups, each
 * change in a savepoint of its own, and are answered after the commit; if the commit fails, all are refused.
 *
 * Import batches stand in a lane of their own: one of them goes with each group, so that edits never wait for more.
 */
import { parentPort, workerData } from 'node:worker_threads'
import { openForWriting } from '../db/open.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'
import { toAnswer, type Answer, type Ask, type ThreadData, type Turned } from './protocol.ts'
import { ALONE, BULK, WRITES, type WriteName } from './writes.ts'

/** How long a group may take in further changes; longer would be felt, shorter would cost a sync each. */
const GROUP_MS = 2

const { file, key } = workerData as ThreadData
const store = openStore(openForWriting(file), openRowIds(Buffer.from(key, 'hex')))
const quick: Ask[] = []
const bulk: Ask[] = []
let scheduled = false

parentPort?.on('message', (ask: Ask) => {
	;(BULK.has(ask.name) ? bulk : quick).push(ask)
	schedule()
})
parentPort?.postMessage('ready')

function schedule(): void {
	if (scheduled) return
	scheduled = true
	// After what has already arrived was taken in, so that it shares the commit.
	setImmediate(() => {
		scheduled = false
		const [first] = quick
		if (first && ALONE.has(first.name)) runAlone(quick.shift() as Ask)
		else runGroup()
		if (quick.length > 0 || bulk.length > 0) schedule()
	})
}

function runGroup(): void {
	const answers: Answer[] = []
	store.touched.clear()
	store.db.exec('BEGIN IMMEDIATE')
	const started = performance.now()
	try {
		for (let ask = quick[0]; ask && !ALONE.has(ask.name); ask = quick[0]) {
			quick.shift()
			answers.push(run(ask))
			if (performance.now() - started > GROUP_MS) break
		}
		const batch = bulk.shift()
		if (batch) answers.push(run(batch))
		store.db.exec('COMMIT')
	} catch (error) {
		if (store.db.inTransaction) store.db.exec('ROLLBACK')
		for (const { id } of answers) parentPort?.postMessage(toAnswer(id, error))
		return
	}
	tellTurned()
	for (const answer of answers) parentPort?.postMessage(answer)
}

function run({ id, name, args }: Ask): Answer {
	store.db.exec('SAVEPOINT change')
	const touched = [...store.touched]
	try {
		const result = call(name, args)
		store.db.exec('RELEASE change')
		return { id, ok: true, json: JSON.stringify(result ?? null) }
	} catch (error) {
		store.db.exec('ROLLBACK TO change')
		store.db.exec('RELEASE change')
		store.forget()
		store.touched.clear()
		for (const each of touched) store.touched.add(each)
		return toAnswer(id, error)
	}
}

/** What cannot run inside a transaction: making a copy of the file. */
function runAlone({ id, name, args }: Ask): void {
	try {
		parentPort?.postMessage({ id, ok: true, json: JSON.stringify(call(name, args) ?? null) } satisfies Answer)
	} catch (error) {
		parentPort?.postMessage(toAnswer(id, error))
	}
}

function call(name: string, args: unknown): unknown {
	const write = WRITES[name as WriteName] as ((store: unknown, args: unknown) => unknown) | undefined
	if (!write) throw new Error(`Cannot find write "${name}"`)
	return write(store, args)
}

function tellTurned(): void {
	if (store.touched.size === 0) return
	const tables = [...store.touched].filter((each) => typeof each === 'number')
	const message: Turned = { turned: { tables, access: store.touched.has('access'), jobs: store.touched.has('jobs') } }
	parentPort?.postMessage(message)
}
