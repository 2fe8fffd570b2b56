/**
 * A reader thread: a read-only connection that answers one question at a time, each in one snapshot, as JSON text.
 */
import { parentPort, workerData } from 'node:worker_threads'
import { AppError } from '$lib/core/app-error.ts'
import { openForReading } from '../db/open.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'
import { toAnswer, type Answer, type Ask, type Lacking, type ThreadStart } from './protocol.ts'
import { READS, type ReadName } from './reads.ts'
import { isStopped } from './stops.ts'

const { file, key, stops } = workerData as ThreadStart
const store = openStore(openForReading(file, refuseToGoOn), openRowIds(Buffer.from(key, 'hex')))
/** The question that is being answered, and until when (of `performance.now`). */
let current = { id: 0, until: Infinity }

parentPort?.on('message', (ask: Ask) => {
	parentPort?.postMessage(answer(ask))
	if (store.wanted.size === 0) return
	parentPort?.postMessage({ wanted: [...store.wanted.values()] } satisfies Lacking)
	store.wanted.clear()
})
parentPort?.postMessage('ready')

/** Far longer than anybody waits gladly; the other reader cannot answer everything alone for ever. */
const LONGEST_MS = 30_000

/** Asked from inside long scans, which nothing else can stop: ending a thread does not end its statement. */
function refuseToGoOn(): void {
	if (isStopped(stops, current.id)) throw new AppError('busy', 'This was stopped.')
	if (performance.now() > current.until)
		throw new AppError('busy', 'This took too long and was stopped. Narrow it down, or order by another column.')
}

function answer({ id, name, args }: Ask): Answer {
	try {
		current = { id, until: performance.now() + LONGEST_MS }
		refuseToGoOn()
		const read = READS[name as ReadName] as ((store: unknown, args: unknown) => unknown) | undefined
		if (!read) throw new Error(`Cannot find read "${name}"`)
		// One transaction: lines, roles and rows are read as they were at one moment.
		const result = store.db.transaction(() => read(store, args)).deferred()
		return { id, ok: true, json: JSON.stringify(result ?? null) }
	} catch (error) {
		return toAnswer(id, error)
	}
}
